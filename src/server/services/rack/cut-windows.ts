/** When batches that wait can be cut: from the formula, past cuts of the bar, and how the block heats. */
import type { Batch } from '../../../core/batch/types';
import { putOffHours } from '../../../core/curing/batch-cure';
import {
  cutWindow,
  feltOf,
  type CutWindow,
  type PastCut,
  type WindowOptions,
} from '../../../core/curing/window';
import { questionOfBatch } from '../../../core/heat/batch-pour';
import type { Pace } from '../../../core/heat/pace';
import { pourOf } from '../../../core/heat/ways';
import type { Mould } from '../../../core/making/size';
import type { BatchDetail } from '../../../core/records/batch';
import type { MouldWarmth } from '../../../core/records/warmth';
import type { House } from '../../house';
import { JobEnded } from '../../jobs/ended';
import { isBefore } from '../../../core/quantities/day';
import { onThread } from '../../jobs/threads';
import { cutBefore } from '../../repositories/standings';
import { findSetting } from '../../repositories/settings';
import { mouldWarmth } from './warmth';

/** Past cuts of a bar that still tell something. */
const MOST_PAST = 12;

/** Paces that were reckoned, by what they were reckoned from; the rack is asked for by every page. */
const paces = new Map<string, Promise<Pace[]>>();
const MOST_PACES = 500;

/** The windows of several batches: what they share is read once. */
export class CutWindows {
  private readonly warmths = new Map<string, Promise<MouldWarmth>>();
  private moulds: Promise<Mould[]> | null = null;

  constructor(private readonly house: House) {}

  /** The window of a batch that waits to be cut; null for any other. */
  async of({ id, batch }: BatchDetail): Promise<CutWindow | null> {
    if (batch.state !== 'poured' || !batch.poured) return null;
    const past = await cutBefore(this.house.db, batch.product, id, MOST_PAST);
    return this.windowOf(batch, past, { putOffHours: putOffHours(batch), felt: feltOf(batch) });
  }

  private async windowOf(
    batch: Batch,
    past: readonly PastCut[],
    seen: Pick<WindowOptions, 'putOffHours' | 'felt'>,
  ): Promise<CutWindow> {
    this.moulds ??= findSetting(this.house.db, 'moulds').then(({ value }) => value);
    const moulds = await this.moulds;
    const pace = await this.paceOf(batch, moulds);
    const used = (batch.poured?.moulds ?? []).filter(({ count }) => count > 0);
    const isSingle =
      used.length > 0 && used.every((one) => moulds.find((mould) => mould.id === one.id)?.isSingle === true);
    return cutWindow(batch.formula, batch.materials, past, { rested: batch.rested, pace, isSingle, ...seen });
  }

  /** The window of a batch that was cut, as it was foretold at its pour: by what had been cut before, untouched. */
  async foretold({ id, batch }: BatchDetail): Promise<CutWindow | null> {
    const { poured } = batch;
    if (!poured) return null;
    const past = await cutBefore(this.house.db, batch.product, id, MOST_PAST);
    const earlier = past.filter((one) => one.poured !== null && isBefore(one.poured.at, poured.at));
    return this.windowOf(batch, earlier, { putOffHours: [], felt: [] });
  }

  /** How its warmth moves the craft's hours; empty where its moulds are not known or the reckoning failed. */
  private async paceOf(batch: Batch, moulds: readonly Mould[]): Promise<Pace[]> {
    const question = questionOfBatch(batch, moulds);
    const pour = question && pourOf(question);
    if (!pour) return [];
    const mould = question.mould.id;
    const warmth = this.warmths.get(mould) ?? mouldWarmth(this.house, mould);
    this.warmths.set(mould, warmth);
    const job = { pour, mould, measured: (await warmth).measured };
    const key = JSON.stringify(job);
    const known = paces.get(key);
    if (known) return known;
    const reckoned = onThread('pace', job).catch((error: unknown) => {
      paces.delete(key);
      if (error instanceof JobEnded) return [];
      throw error;
    });
    paces.set(key, reckoned);
    if (paces.size > MOST_PACES) paces.delete(paces.keys().next().value!);
    return reckoned;
  }
}
