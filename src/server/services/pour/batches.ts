/** Batches: begun, written down event by event, and held against the limits as they were weighed. */
import { randomUUID } from 'node:crypto';
import { assess } from '../../../core/assess';
import type { EventOf } from '../../../core/batch/types';
import type { BatchAssessment, BatchDetail } from '../../../core/records/batch';
import type { NewBatch } from '../../doors/batch';
import type { House } from '../../house';
import { HttpFault } from '../../http';
import { snapshotOf } from '../../store/snapshot';
import { startBatch } from '../../store/start-batch';
import { once, writing } from '../../store/writing';
import { requireBatch } from '../../store/batches';
import { requestOf, frozenRequest } from '../../store/batch-events';

/** The written reason for pouring what is over a limit or unproven, as the record keeps it. */
const despiteNote = ({ now }: House, { by, despite }: NewBatch): EventOf<'noted'>[] =>
  despite === undefined
    ? []
    : [
        {
          id: randomUUID(),
          type: 'noted',
          at: now,
          by,
          text: `Poured all the same: ${despite}`,
          for: 'record',
        },
      ];

/** Begins a batch: what is planned is frozen in its first event. `key` makes a request sent twice begin one batch. */
export function beginBatch(house: House, wanted: NewBatch, key: string | null = null): Promise<BatchDetail> {
  return writing(house.db, (trx) =>
    once(trx, key, 'batch', house.now, () =>
      startBatch({ ...house, db: trx }, wanted, { at: house.now, more: despiteNote(house, wanted) }),
    ),
  );
}

/** What was weighed, assessed; 422 where it does not reckon (yet). */
export async function assessBatch(house: House, id: string): Promise<BatchAssessment> {
  const { batch } = await requireBatch(house, id);
  const { product, snapshot, request } = await frozenRequest(house, batch);
  const result = assess(request, snapshot);
  if (!result.ok) throw new HttpFault(422, result.errors);
  const now = await snapshotOf(house.db, house.today);
  const again = requestOf(batch, product, now, { zone: house.zone, materials: 'stored' });
  const todays = assess(again, now);
  if (!todays.ok) throw new HttpFault(422, todays.errors);
  return {
    onDate: snapshot.onDate,
    request,
    assessment: result.assessment,
    today: { onDate: house.today, request: again, assessment: todays.assessment },
  };
}
