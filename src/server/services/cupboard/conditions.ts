/** What papers show of conditions: written down by material, in one step. */
import type { ShownCondition } from '../../../core/paperwork/conditions';
import type { CupboardEntry } from '../../../core/records/cupboard';
import { rulebook } from '../../../rulebook';
import type { House } from '../../house';
import { fault } from '../../http';
import { findSetting, putSetting } from '../../repositories/settings';
import { changing, requireMaterial } from '../../store/materials';

/** Papers kept for one condition of a material, the newest. */
const MOST_KEPT = 10;

/** Writes down what a paper shows, or takes the newest back with null. 404 for an unknown material or condition. */
export function showCondition(
  house: House,
  material: string,
  condition: string,
  shown: Omit<ShownCondition, 'condition'> | null,
): Promise<CupboardEntry> {
  return changing(house, async (trx) => {
    await requireMaterial(trx, material);
    if (!rulebook().conditions.some(({ id }) => id === condition))
      throw fault(404, 'unknown-condition', `There is no condition "${condition}".`, 'condition');
    const { value } = await findSetting(trx, 'shownConditions');
    const all = value[material] ?? [];
    const others = all.filter((one) => one.condition !== condition);
    const own = all.filter((one) => one.condition === condition);
    const kept = shown ? [{ ...shown, condition }, ...own].slice(0, MOST_KEPT) : own.slice(1);
    await putSetting(trx, 'shownConditions', { ...value, [material]: [...kept, ...others] });
    return material;
  });
}
