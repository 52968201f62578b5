/** A batch's record, as data and as a PDF. */
import { batchRecord, type BatchRecord } from '../../../core/batch/record';
import { batchCost } from '../../../core/batch/cost';
import type { Batch } from '../../../core/batch/types';
import { USUAL_HABITS } from '../../../core/records/house';
import { groupBy } from '../../../core/group';
import { pricePerGram } from '../../../core/making/cost';
import type { House } from '../../house';
import { HttpFault } from '../../http';
import { findBatch } from '../../repositories/batches';
import { lotsById, pricedLots } from '../../repositories/lots';
import { findCurrency, findSetting } from '../../repositories/settings';
import { onThread } from '../../jobs/threads';
import { told } from '../../jobs/told';
import { assessBatch } from './batches';
import { requireBatch } from '../../store/batches';

/** What it cost, at the prices of the lots it was weighed from. */
async function costOfBatch({ db }: House, batch: Batch): Promise<BatchRecord['cost']> {
  const used = batch.lines.flatMap(({ weighings }) => weighings.flatMap(({ lot }) => lot ?? []));
  const lots = await lotsById(db, [...new Set(used)]);
  const byMaterial = groupBy(await pricedLots(db), ({ material }) => material);
  const price = (material: string) => pricePerGram(byMaterial.get(material) ?? []);
  const { total, perBar, unpriced } = batchCost(batch, new Map(lots.map((lot) => [lot.id, lot])), price);
  return total > 0 ? { currency: await findCurrency(db), total, perBar, unpriced } : null;
}

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
  return batchRecord({ id, productName, batch, events, verdicts, cost: await costOfBatch(house, batch) });
}

/** The same as a PDF; 422 where it is too long to be set. */
export async function recordAsPdf(house: House, id: string): Promise<{ bytes: Uint8Array; code: string }> {
  const record = await recordOf(house, id);
  const { weights, degrees } = { ...USUAL_HABITS, ...(await findSetting(house.db, 'house')).value };
  const job = { record, zone: house.zone, weights, degrees };
  return { bytes: await told(onThread('recordPdf', job), 'as'), code: record.code };
}
