/** What only papers show of a bar's materials, as several places tell it. */
import type { Knex } from 'knex';
import { conditionsOf, type ConditionStand } from '../../core/paperwork/conditions';
import type { Market, Material } from '../../core/formula/types';
import { rulebook } from '../../rulebook';
import { findSetting } from '../repositories/settings';

/** How the conditions stand for some materials in some markets on a day; each material once. */
export async function conditionsOfBar(
  db: Knex,
  materials: readonly Material[],
  markets: readonly Market[],
  onDate: string,
): Promise<ConditionStand[]> {
  const { value: shown } = await findSetting(db, 'shownConditions');
  const once = [...new Map(materials.map((material) => [material.id, material])).values()];
  return once.flatMap((material) =>
    conditionsOf(material, rulebook().conditions, shown[material.id] ?? [], { markets, onDate }),
  );
}
