/** The maker's own thermometer: what was measured of earlier pours in a mould. */
import { measuredBatch } from '../../../core/heat/batch-pour';
import type { MouldWarmth } from '../../../core/records/warmth';
import type { House } from '../../house';
import { fault } from '../../http';
import { warmIn } from '../../repositories/standings';
import { findSetting } from '../../repositories/settings';
import { requireBatch } from '../../store/batches';

/** Pours that still tell something, and batches that are looked through for them: some do not reckon. */
const MOST_POURS = 6;
const MOST_LOOKED_AT = 20;

/** Pours in a mould of which a temperature is on file since they were poured; 404 where there is no such mould. */
export async function mouldWarmth(house: House, id: string): Promise<MouldWarmth> {
  const { value: moulds } = await findSetting(house.db, 'moulds');
  const mould = moulds.find((one) => one.id === id);
  if (!mould) throw fault(404, 'unknown-mould', `There is no mould "${id}".`, 'id');
  const measured: MouldWarmth['measured'] = [];
  for (const id of await warmIn(house.db, mould.id, MOST_LOOKED_AT)) {
    if (measured.length >= MOST_POURS) break;
    const { batch, code } = await requireBatch(house, id);
    const found = measuredBatch(batch, [mould]);
    if (found) measured.push({ ...found, batch: id, code });
  }
  return { measured };
}
