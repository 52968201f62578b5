/** The outlook on an assessed formula. */
import type { Assessment } from '../formula/answer';
import type { TraitMaterial } from '../formula/traits';
import type { Formula } from '../formula/types';
import { judgeOutlook, type Judgement } from './judge';

/**
 * Judges an assessed formula; lines whose material is not given are left out.
 *
 * @example
 * outlookOn(formula, assessment, (id) => materials.get(id)); // judgements, each with its reason
 */
export function outlookOn(
  formula: Formula,
  assessment: Assessment,
  material: (id: string) => TraitMaterial | undefined,
): Judgement[] {
  const massOf = new Map(assessment.lines.map((line) => [line.id, line]));
  const loads = formula.lines.flatMap((line) => {
    const found = material(line.material);
    const assessed = massOf.get(line.id);
    if (!found || !assessed) return [];
    const { massG, pctFats } = assessed;
    return [{ material: found, massG, pctFats, name: found.name, stage: line.stage }];
  });
  const { fatsG, liquidG } = assessment.masses;
  return judgeOutlook({
    formula,
    fatsG,
    superfatPct: assessment.superfat.effectivePct ?? 0,
    liquidPctFats: fatsG > 0 ? (100 * liquidG) / fatsG : 0,
    loads,
  });
}
