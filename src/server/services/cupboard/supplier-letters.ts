/** Letters to suppliers: kept with their day, so that an answer is missed when it does not come. Nothing is sent. */
import type { WrittenLetter } from '../../../core/paperwork/supplier-letter';
import type { CupboardEntry } from '../../../core/records/cupboard';
import type { House } from '../../house';
import { findSetting, putSetting } from '../../repositories/settings';
import { changing, requireMaterial } from '../../store/materials';

/** Letters kept of a material, the newest. */
const MOST_KEPT = 20;

/** Keeps a letter of today, the same one once, or takes the newest off with null; 404 where there is no such material. */
export function keepLetter(
  house: House,
  material: string,
  letter: Omit<WrittenLetter, 'on'> | null,
): Promise<CupboardEntry> {
  return changing(house, async (trx) => {
    await requireMaterial(trx, material);
    const { value } = await findSetting(trx, 'letters');
    const all = value[material] ?? [];
    const others = all.filter(({ on, body }) => on !== house.today || body !== letter?.body);
    const kept = letter ? [{ ...letter, on: house.today }, ...others].slice(0, MOST_KEPT) : all.slice(1);
    await putSetting(trx, 'letters', { ...value, [material]: kept });
    return material;
  });
}
