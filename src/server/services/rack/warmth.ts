/** The maker's own thermometer: what was measured of earlier pours in a mould. */
import { measuredBatch } from '../../../core/heat/batch-pour';
import type { MouldWarmth } from '../../../core/records/warmth';
import type { House } from '../../house';
import { fault } from '../../http';
import { allBatches, withTemperatures } from '../../repositories/batches';
import { findSetting } from '../../repositories/settings';
import { requireBatch } from '../../store/batches';

/** Pours that still tell something, and batches that are looked through for them. */
const MOST_POURS = 6;
const MOST_LOOKED_AT = 200;

/** Pours in a mould of which a temperature is on file since they were poured; 404 where there is no such mould. */
export async function mouldWarmth(house: House, id: string): Promise<MouldWarmth> {
  const { value: moulds } = await findSetting(house.db, 'moulds');
  const mould = moulds.find((one) => one.id === id);
  if (!mould) throw fault(404, 'unknown-mould', `There is no mould "${id}".`, 'id');
  const measured: MouldWarmth['measured'] = [];
  const told = await withTemperatures(house.db, MOST_LOOKED_AT);
  const batches = (await allBatches(house.db)).filter(({ id: batch }) => told.has(batch));
  for (const { id: batch, code } of batches) {
    if (measured.length >= MOST_POURS) break;
    const found = measuredBatch((await requireBatch(house, batch)).batch, [mould]);
    if (found) measured.push({ ...found, batch, code });
  }
  return { measured };
}
