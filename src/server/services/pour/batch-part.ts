/** Leftovers, trimmings, seconds and embeds of a batch, taken into the cupboard as a material with a lot of their own. */
import { partMaterial, type PartKind } from '../../../core/batch/part';
import type { CupboardEntry } from '../../../core/records/cupboard';
import type { House } from '../../house';
import { fault } from '../../http';
import { addLot } from '../../repositories/lots';
import { addMaterial } from '../../repositories/materials';
import { snapshotOf } from '../../store/snapshot';
import { takenIds } from '../../store/writing';
import { assessBatch } from './batches';
import { freeId } from '../../store/ids';
import { changing } from '../../store/materials';
import { requireBatch } from '../../store/batches';

export interface NewPart {
  what: PartKind;
  name: string;
  massG: number;
}

/** Makes the material and its lot; 404 and 422 as faults. `key` makes a request sent twice make it once. */
export async function makePart(
  house: House,
  id: string,
  { what, name, massG }: NewPart,
  key: string | null = null,
): Promise<CupboardEntry> {
  const { batch } = await requireBatch(house, id);
  if (!batch.poured)
    throw fault(422, 'not-now', 'Nothing of a batch is left over before it is poured.', 'what');
  if ((what === 'trimmings' || what === 'seconds') && !batch.cut)
    throw fault(422, 'not-now', 'There are neither trimmings nor seconds before it is cut.', 'what');
  const { assessment } = await assessBatch(house, id);
  const snapshot = await snapshotOf(house.db, house.today);
  const action = async (trx: House['db']) => {
    const materialId = await freeId(name, 'part', (base) => takenIds(trx, 'materials', base));
    const find = (one: string) => snapshot.material(one);
    await addMaterial(trx, partMaterial(batch, assessment, { id: materialId, name, find }), 'Made here');
    const lotId = await freeId(`${materialId} ${batch.code}`, 'lot', (base) => takenIds(trx, 'lots', base));
    await addLot(trx, {
      id: lotId,
      material: materialId,
      supplier: 'Made here',
      code: batch.code,
      receivedOn: house.today,
      openedOn: null,
      bestBefore: null,
      quantityG: massG,
      leftG: massG,
      quarantine: null,
      price: null,
      ofBatch: id,
      revision: 1,
    });
    return materialId;
  };
  return changing(house, action, key, 'part');
}
