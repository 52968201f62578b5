/** The cures of batches, as their weighings tell them. */
import type { Knex } from 'knex';
import type { Batch, BatchStanding } from '../../core/batch/types';
import { cureInput, daysSince, lightestG, settledBars, type SettledBar } from '../../core/curing/batch-cure';
import type { Cure } from '../../core/curing/cure-types';
import type { NextWeighing } from '../../core/curing/next-weighing';
import { standingOf } from '../../core/curing/standing';
import { groupsOf } from '../../core/group';
import type { House } from '../house';
import { onThread } from '../jobs/threads';
import { told } from '../jobs/told';
import { noteFault } from '../log';
import { keepCure, keptCures, type KeptCure } from '../repositories/cures';
import { findSetting } from '../repositories/settings';

/** Cures reckoned in one job: about half a second of a thread's time. */
const CHUNK = 4;
const LIMIT_MS = 30_000;

export interface StandingOfBatch {
  id: string;
  seq: number;
  standing: BatchStanding;
}

/** The cures of some batches: kept where nothing happened since, reckoned on threads where it did. */
export async function curesOf(
  { db }: House,
  batches: readonly StandingOfBatch[],
  minDays: number,
): Promise<ReadonlyMap<string, Cure>> {
  const kept = await keptCures(
    db,
    batches.map(({ id }) => id),
  );
  const found = new Map<string, Cure>();
  const open: StandingOfBatch[] = [];
  for (const one of batches) {
    const known = kept.get(one.id);
    if (known?.seq === one.seq && known.minDays === minDays) found.set(one.id, known.cure);
    else open.push(one);
  }
  await Promise.all(
    groupsOf(open, CHUNK).map(async (chunk) => {
      const tasks = chunk.map(({ standing }) => cureInput(standing, minDays));
      const cures = await told(onThread('cures', { tasks }, { limitMs: LIMIT_MS }), 'id');
      for (const [at, { id, seq }] of chunk.entries()) {
        found.set(id, cures[at]!);
        await keep(db, id, { seq, minDays, cure: cures[at]! });
      }
    }),
  );
  return found;
}

/** Keeps a cure for the next look. A disk that is full costs that, and no page. */
async function keep(db: Knex, id: string, kept: KeptCure): Promise<void> {
  try {
    await keepCure(db, id, kept);
  } catch (error) {
    noteFault('cure not kept', error);
  }
}

/** The settled bars of a batch as it stands, reckoned anew; within a transaction nothing is kept. */
export async function settledNow(
  db: Knex,
  batch: Batch,
): Promise<{ cure: Cure; bars: SettledBar[]; lightestG: number | null }> {
  const { value: days } = await findSetting(db, 'curingDays');
  const tasks = [cureInput(standingOf(batch), days.least)];
  const [cure] = await told(onThread('cures', { tasks }, { limitMs: LIMIT_MS }), 'id');
  const bars = settledBars(batch, cure!, days.least);
  return { cure: cure!, bars, lightestG: lightestG(bars) };
}

/** Which bar of a batch to weigh next, on which day since its pour; null where a weighing would narrow nothing. */
export async function nextBarOf({ db, now }: House, batch: Batch): Promise<NextWeighing | null> {
  const { value: days } = await findSetting(db, 'curingDays');
  const input = cureInput(standingOf(batch), days.least);
  const today = daysSince(batch.poured?.at ?? batch.startedAt, now);
  return told(onThread('nextBar', { ...input, today }, { limitMs: LIMIT_MS }), 'id');
}
