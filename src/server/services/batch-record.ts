/** A batch's record, as data and as a PDF. */
import { batchRecord, type BatchRecord } from '../../core/batch/record';
import type { House } from '../house';
import { HttpFault } from '../http';
import { findBatch } from '../repositories/batches';
import { onThread } from '../jobs/threads';
import { assessBatch, requireBatch } from './batches';

/** The record of a batch; 404 where there is none. What does not reckon has no verdicts. */
export async function recordOf(house: House, id: string): Promise<BatchRecord> {
  const { batch, events } = await requireBatch(house, id);
  const { productName } = (await findBatch(house.db, id))!;
  const assessed = await assessBatch(house, id).catch((error: unknown) => {
    if (error instanceof HttpFault && error.status === 422) return null;
    throw error;
  });
  const verdicts = assessed && {
    then: { onDate: assessed.onDate, assessment: assessed.assessment },
    today: { onDate: assessed.today.onDate, assessment: assessed.today.assessment },
  };
  return batchRecord({ id, productName, batch, events, verdicts });
}

/** The same as a PDF. */
export async function recordAsPdf(house: House, id: string): Promise<{ bytes: Uint8Array; code: string }> {
  const record = await recordOf(house, id);
  return { bytes: await onThread('recordPdf', record), code: record.code };
}
