/** A formula's lines with their materials and masses, by portion: what the day, the cut and the heat reckon from. */
import { assess } from '../assess';
import type { Assessment } from '../formula/answer';
import type { TraitMaterial } from '../formula/traits';
import { REQUEST_FORMAT, type Formula } from '../formula/types';
import { loadOf, type Load } from './roles';

const ANY_DAY = '2000-01-01';
const NO_RULES = { material: () => undefined, limits: [], declarables: [] };

export interface Loads {
  loads: Load[];
  /** One without an id where the batter is not split. */
  portions: { id: string | null; share: number }[];
  assessment: Assessment;
}

/** The loads of a formula; null where it does not reckon. Lines of materials that are not given are left out. */
export function loadsOf(formula: Formula, materials: readonly TraitMaterial[]): Loads | null {
  const undated = materials.map((material) => ({ ...material, limits: [] }));
  const result = assess(
    { format: REQUEST_FORMAT, formula, materials: undated, markets: ['EU'], onDate: ANY_DAY },
    NO_RULES,
  );
  if (!result.ok) return null;
  const { assessment } = result;
  const ids = new Set((formula.portions ?? []).map(({ id }) => id));
  const byId = new Map(materials.map((material) => [material.id, material]));
  const loads = formula.lines.flatMap((line, at) => {
    const material = byId.get(line.material);
    return material ? [loadOf(line, material, assessment.lines[at]!.massG, ids)] : [];
  });
  const portions = formula.portions?.length ? formula.portions : [{ id: null, share: 1 }];
  return { loads, portions, assessment };
}
