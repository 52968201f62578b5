/** When batches that wait can be cut: from the formula, past cuts of the bar, and how the block heats. */
import type { Knex } from 'knex';
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

/** Windows that were reckoned, by house and by what they were reckoned from; the rack is asked for by every page. */
const kept = new WeakMap<Knex, Map<string, Promise<CutWindow>>>();
const MOST_WINDOWS = 500;

function keptOf(db: Knex): Map<string, Promise<CutWindow>> {
  const known = kept.get(db) ?? new Map<string, Promise<CutWindow>>();
  kept.set(db, known);
  return known;
}

/** All that a window hangs on. */
interface Asked {
  batch: Batch;
  past: readonly PastCut[];
  seen: Pick<WindowOptions, 'putOffHours' | 'felt'>;
  moulds: readonly Mould[];
  /** What was measured in each mould of the batch that is known. */
  measured: Readonly<Record<string, MouldWarmth['measured']>>;
}

/** How its warmth moves the craft's hours; empty where its moulds are not known, or the reckoning failed, which is told. */
async function paceOf({ batch, moulds, measured }: Asked, onLost: () => void): Promise<Pace[]> {
  const question = questionOfBatch(batch, moulds);
  const pour = question && pourOf(question);
  if (!pour) return [];
  const { id: mould } = question.mould;
  return onThread('pace', { pour, mould, measured: measured[mould]! }).catch((error: unknown) => {
    onLost();
    if (error instanceof JobEnded) return [];
    throw error;
  });
}

async function reckoned(asked: Asked, onLost: () => void): Promise<CutWindow> {
  const { batch, past, seen, moulds } = asked;
  const pace = await paceOf(asked, onLost);
  const isSingle =
    moulds.length > 0 &&
    usedMoulds(batch).every(({ id }) => moulds.find((mould) => mould.id === id)?.isSingle === true);
  return cutWindow(batch.formula, batch.materials, past, { rested: batch.rested, pace, isSingle, ...seen });
}

const usedMoulds = ({ poured }: Batch) => (poured?.moulds ?? []).filter(({ count }) => count > 0);

/** The windows of several batches: what they share is read once. */
export class CutWindows {
  private readonly warmths = new Map<string, Promise<MouldWarmth>>();
  private moulds: Promise<Mould[]> | null = null;

  constructor(private readonly house: House) {}

  /** The window of a batch that waits to be cut; null for any other. */
  async of(detail: BatchDetail): Promise<CutWindow | null> {
    const { id, batch } = detail;
    if (batch.state !== 'poured' || !batch.poured) return null;
    const past = await cutBefore(this.house.db, batch.product, id, MOST_PAST);
    return this.windowOf(detail, past, { putOffHours: putOffHours(batch), felt: feltOf(batch) });
  }

  private async windowOf(
    { id, seq, batch, events }: BatchDetail,
    past: readonly PastCut[],
    seen: Asked['seen'],
  ): Promise<CutWindow> {
    const around = { past, seen, ...(await this.mouldsOf(batch)) };
    // A batch is its events, and those are only ever added to.
    const key = JSON.stringify([id, seq, events.at(-1)?.id, around]);
    const windows = keptOf(this.house.db);
    const known = windows.get(key);
    if (known) return known;
    const window = reckoned({ batch, ...around }, () => windows.delete(key));
    windows.set(key, window);
    if (windows.size > MOST_WINDOWS) windows.delete(windows.keys().next().value!);
    return window;
  }

  /** The window of a batch that was cut, as it was foretold at its pour: by what had been cut before, untouched. */
  async foretold(detail: BatchDetail): Promise<CutWindow | null> {
    const { id, batch } = detail;
    const { poured } = batch;
    if (!poured) return null;
    const past = await cutBefore(this.house.db, batch.product, id, MOST_PAST);
    const earlier = past.filter((one) => one.poured !== null && isBefore(one.poured.at, poured.at));
    return this.windowOf(detail, earlier, { putOffHours: [], felt: [] });
  }

  /** The moulds of a batch, as far as they are known, with what was measured in them. */
  private async mouldsOf(batch: Batch): Promise<Pick<Asked, 'moulds' | 'measured'>> {
    this.moulds ??= findSetting(this.house.db, 'moulds').then(({ value }) => value);
    const used = usedMoulds(batch);
    const moulds = (await this.moulds).filter(({ id }) => used.some((one) => one.id === id));
    const measured: Record<string, MouldWarmth['measured']> = {};
    for (const { id } of moulds) {
      const warmth = this.warmths.get(id) ?? mouldWarmth(this.house, id);
      this.warmths.set(id, warmth);
      measured[id] = (await warmth).measured;
    }
    return { moulds, measured };
  }
}
