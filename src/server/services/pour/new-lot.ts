/** A bottle or sack that hands at the bench find and nobody wrote down. */
import { ALKALI_MATERIAL } from '../../../core/making/cost';
import { LYE_STOCK_LINE } from '../../../core/making/run-sheet-types';
import type { BatchLots } from '../../../core/records/batch';
import type { FoundLot } from '../../doors/shelf';
import type { House } from '../../house';
import { fault } from '../../http';
import { requireBatch } from '../../store/batches';
import { takeDelivery } from '../../store/lots';
import { batchLots } from './bench';

/**
 * Makes a lot of something the batch holds, numbered as the maker numbers and of unknown supplier, and answers the lots of
 * the batch as they are then. `key` names the request. 404 where there is no such batch, 422 for what it does not hold.
 */
export async function findLotAtBench(
  house: House,
  id: string,
  { material, quantityG, code }: FoundLot,
  key: string | null = null,
): Promise<BatchLots & { code: string }> {
  const { batch } = await requireBatch(house, id);
  const of = material === LYE_STOCK_LINE ? ALKALI_MATERIAL : material;
  if (!batch.lines.some((line) => line.material === material))
    throw fault(422, 'unknown-material', 'This batch holds no such material.', 'material');
  const row = { material: of, quantityG, code, bestBefore: null, price: null };
  const { lots } = await takeDelivery(house, { supplier: '', receivedOn: house.today, rows: [row] }, key);
  return { ...(await batchLots(house, id)), code: lots[0]!.code };
}
