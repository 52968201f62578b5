/** Batches as they stand. */
import { curesBy, foldBatch } from '../../core/batch/fold';
import type { Batch, BatchEvent } from '../../core/batch/types';
import { laterOf } from '../../core/quantities/day';
import type { BatchDetail, BatchSummary } from '../../core/records/batch';
import type { House } from '../house';
import { fault } from '../http';
import { allBatches, allEvents, findBatch } from '../repositories/batches';

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
