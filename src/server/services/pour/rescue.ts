/** What would bring a batch at the bench back, with the names of what to add. */
import type { Rescue } from '../../../core/batch/rescue';
import { ALKALI_LINE } from '../../../core/making/run-sheet-types';
import { heldBy } from '../../../core/making/size';
import type { House } from '../../house';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { findSetting } from '../../repositories/settings';
import { requireBatch } from '../../store/batches';
import { requireProduct } from '../../store/products';
import { sharedSetting } from '../../store/shared';
import { snapshotOf } from '../../store/snapshot';

/** As the core finds it, names of materials beside. */
export type NamedRescue = Rescue & { names: Record<string, string> };

/** 404 where there is no such batch; 422 once it is poured, or where it does not reckon. */
export async function rescueOf(house: House, id: string): Promise<NamedRescue> {
  const { batch } = await requireBatch(house, id);
  if (batch.state !== 'pouring')
    throw fault(422, 'not-now', 'It is poured: nothing can be added to it any more.', 'id');
  const { product } = await requireProduct(house.db, batch.product);
  const snapshot = await snapshotOf(house.db, house.today);
  const moulds = (await findSetting(house.db, 'moulds')).value;
  const holdsMl = heldBy(batch.sheet.moulds, moulds);
  const ask = { batch, markets: product.markets, onDate: house.today, holdsMl };
  const found = await onThread('findRescue', { setting: sharedSetting(snapshot), ...ask });
  if (!found) throw fault(422, 'no-solution', 'What is in the pot does not reckon as it stands.', 'id');
  const added = found.outcome === 'found' ? found.additions : [];
  const nameOf = (material: string) =>
    material === ALKALI_LINE ? 'Sodium hydroxide' : (snapshot.material(material)?.name ?? material);
  return { ...found, names: Object.fromEntries(added.map(({ material }) => [material, nameOf(material)])) };
}
