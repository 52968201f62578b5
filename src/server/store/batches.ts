/** Batches as they stand. */
import type { Knex } from 'knex';
import { CURES_AFTER_MS, curesBy, foldBatch } from '../../core/batch/fold';
import type { Batch, BatchEvent } from '../../core/batch/types';
import { weighedOf } from '../../core/batch/weighed';
import { standingOf } from '../../core/curing/standing';
import { measuredIn } from '../../core/heat/batch-pour';
import { laterOf } from '../../core/quantities/day';
import type { BatchDetail, BatchSummary } from '../../core/records/batch';
import type { PageOf } from '../../core/records/page';
import type { House } from '../house';
import { fault } from '../http';
import { noteFault } from '../log';
import {
  addBatch,
  allBatches,
  allEvents,
  batchesById,
  batchIds,
  batchPage,
  eventsOf,
  findBatch,
  putBatch,
} from '../repositories/batches';
import { sumLedgers } from '../repositories/lots';
import { batchesUnkept, dropStandings, keptText, putStanding } from '../repositories/standings';

export const unknownBatch = (id: string) => fault(404, 'unknown-batch', `There is no batch "${id}".`, 'id');

/** How a batch stands, without its events. */
export function summaryOf(id: string, seq: number, name: string, batch: Batch): BatchSummary {
  return {
    id,
    seq,
    code: batch.code,
    product: batch.product,
    productName: name,
    startedAt: batch.startedAt,
    startedBy: batch.startedBy,
    pouredAt: batch.poured?.at ?? null,
    cutAt: batch.cut?.at ?? null,
    state: batch.state,
    isQuarantined: batch.isQuarantined,
    bars: batch.bars,
  };
}

/** A batch as it is kept: its id, how many events it has, and its bar's name. */
type Named = Pick<BatchSummary, 'id' | 'seq' | 'productName'>;

const keepStanding = (trx: Knex, { id, seq }: Pick<Named, 'id' | 'seq'>, batch: Batch): Promise<void> =>
  putStanding(trx, { batch: id, seq, standing: standingOf(batch), warmIn: measuredIn(batch) });

/** Adds a batch that is begun, before its first event. */
export async function addNewBatch(trx: Knex, { id, seq, productName }: Named, batch: Batch): Promise<void> {
  await addBatch(trx, summaryOf(id, seq, productName, batch));
  await keepStanding(trx, { id, seq }, batch);
}

/** Keeps all that stands beside a batch's events: whoever adds one calls this in the same transaction. */
export async function keepBatch(
  trx: Knex,
  { id, seq, productName }: Named,
  batch: Batch,
  zone: string,
): Promise<void> {
  await putBatch(trx, summaryOf(id, seq, productName, batch), weighedOf(batch, zone));
  await keepStanding(trx, { id, seq }, batch);
}

/**
 * Makes what is kept beside the events of batches where it is missing or of other events: after a migration, and for
 * batches that came in with an archive. Answers how many.
 */
export async function foldMissing(trx: Knex): Promise<number> {
  const missing = await batchesUnkept(trx);
  for (const id of missing) {
    try {
      await foldAnew(trx, id);
    } catch (error) {
      // What cannot be followed costs that batch its place in the lists, and no start.
      noteFault(`batch ${id} not followed`, error);
    }
  }
  return missing.length;
}

/** Folds a batch from its events and keeps what follows from them. */
async function foldAnew(trx: Knex, id: string): Promise<void> {
  const events = await eventsOf(trx, id);
  const batch = foldBatch(events.map(({ event }) => event));
  const summary = await findBatch(trx, id);
  if (batch && summary) await keepStanding(trx, summary, batch);
}

/** Makes everything that is kept beside events anew. Answers how many batches there are. */
export async function refold(trx: Knex): Promise<number> {
  await dropStandings(trx);
  await sumLedgers(trx);
  return foldMissing(trx);
}

/** Of so many batches one is held against a full fold at each look. */
const ONE_IN = 100;

/**
 * Holds one batch in a hundred against a full fold, others at each look; where one differs, it is made anew. Answers the
 * ids of those, which no house should ever have.
 */
export async function lookAtSome(trx: Knex, look: number): Promise<string[]> {
  const differing: string[] = [];
  const all = await batchIds(trx);
  for (const id of all.filter((_, at) => at % ONE_IN === look % ONE_IN)) {
    const before = await keptText(trx, id);
    await foldAnew(trx, id);
    if ((await keptText(trx, id)) !== before) differing.push(id);
  }
  return differing;
}

/** A day after the cut a batch cures by itself. */
function asOf(summary: BatchSummary, now: string): BatchSummary {
  const isDry = summary.cutAt !== null && curesBy(summary.cutAt, now);
  return summary.state === 'cut' && isDry ? { ...summary, state: 'curing' } : summary;
}

/** Batches, newest first; by state (`quarantined` stands on top of any) and by product where asked. */
export async function listBatches(
  { db, now }: House,
  { state, product }: { state: string | null; product: string | null },
): Promise<BatchSummary[]> {
  const all = (await allBatches(db, product)).map((summary) => asOf(summary, now));
  if (state === null) return all;
  return all.filter((one) => (state === 'quarantined' ? one.isQuarantined : one.state === state));
}

/** Batches on one page of a list. */
const PAGE = 50;

/** A page of batches, newest first: of all, or those of a state that are found by letters of a code or a bar's name. */
export async function pageOfBatches(
  { db, now }: House,
  { find, state, page }: { find: string; state: string | null; page: number },
): Promise<PageOf & { batches: BatchSummary[] }> {
  const dryBefore = new Date(Date.parse(now) - CURES_AFTER_MS).toISOString();
  const found = await batchPage(db, { find, state, dryBefore, page, size: PAGE });
  return {
    find,
    page: found.page,
    pages: Math.max(1, Math.ceil(found.count / PAGE)),
    count: found.count,
    batches: found.batches.map((summary) => asOf(summary, now)),
  };
}

/** Batches of these ids, newest first. */
export async function batchesAt({ db, now }: House, ids: ReadonlySet<string>): Promise<BatchSummary[]> {
  return (await batchesById(db, ids)).map((summary) => asOf(summary, now));
}

/** A batch with its events; 404 where there is none. */
export async function requireBatch({ db, now }: House, id: string): Promise<BatchDetail> {
  const summary = await findBatch(db, id);
  if (!summary) throw unknownBatch(id);
  const events = await allEvents(db, id);
  const batch = foldBatch(events, latest(events, now))!;
  return { id, code: summary.code, seq: summary.seq, batch, events, sheet: batch.sheet };
}

/** The later of now and the last event: a tablet's clock may run ahead. */
export const latest = (events: readonly BatchEvent[], now: string): string => laterOf(now, events.at(-1)!.at);
