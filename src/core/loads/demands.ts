/** Craft advice that one load puts on the rest of the formula, such as salt on lauric fats and superfat. */
import type { Advice } from '../formula/answer';
import type { CraftDemand, Material } from '../formula/types';
import type { Balance } from './balance';
import type { Plan } from './plan';

/** A fat counts as lauric from this share of lauric acid, percent: coconut, babassu and palm kernel hold 40 to 50. */
const LAURIC_FROM_PCT = 30;

function isLauric(material: Material): boolean {
  return material.kind === 'fat' && (material.fattyAcids?.lauric ?? 0) >= LAURIC_FROM_PCT;
}

function lauricFatsPct(plan: Plan, batch: Balance): number {
  let massG = 0;
  plan.materials.forEach((material, i) => {
    if (isLauric(material)) massG += batch.massG[i]!;
  });
  return batch.fatsG > 0 ? (100 * massG) / batch.fatsG : 0;
}

function shareOf(material: Material, { type, id }: CraftDemand['subject']): number {
  if (type === 'lauricFats') return isLauric(material) ? 1 : 0;
  if (type === 'kind') return material.kind === id ? 1 : 0;
  if (type === 'material') return material.id === id ? 1 : 0;
  if (type === 'constituent') {
    return (material.constituents?.find((entry) => entry.id === id)?.typicalPct ?? 0) / 100;
  }
  return (material.inci?.find((part) => part.name === id)?.sharePct ?? 0) / 100;
}

function loadPct(plan: Plan, batch: Balance, demand: CraftDemand): number {
  let massG = 0;
  plan.lines.forEach((line, i) => {
    if (demand.stages && !demand.stages.includes(line.stage)) return;
    massG += batch.massG[i]! * shareOf(plan.materials[i]!, demand.subject);
  });
  const wholeG = demand.basis === 'fats' ? batch.fatsG : batch.liquidG;
  return wholeG > 0 ? (100 * massG) / wholeG : 0;
}

/** The demands that the formula does not meet. `superfatPct` is the effective one; null counts as none. */
export function unmetDemands(
  demands: readonly CraftDemand[],
  plan: Plan,
  batch: Balance,
  superfatPct: number | null,
): Advice[] {
  return demands.flatMap((demand) => {
    const foundPct = loadPct(plan, batch, demand);
    if (foundPct <= demand.abovePct) return [];
    const { lauricFatsPct: lauric, superfatPct: fat } = demand.wants;
    const unmet: Advice['unmet'] = [];
    const check = (what: 'lauricFats' | 'superfat', wantedPct: number | undefined, has: number) => {
      if (wantedPct !== undefined && has < wantedPct) unmet.push({ what, wantedPct, foundPct: has });
    };
    check('lauricFats', lauric, lauricFatsPct(plan, batch));
    check('superfat', fat, superfatPct ?? 0);
    const wantsNothing = lauric === undefined && fat === undefined;
    if (unmet.length === 0 && !wantsNothing) return [];
    const { id, abovePct, basis, reason, source } = demand;
    return [{ id, foundPct, abovePct, basis, unmet, reason, source: source ?? null }];
  });
}
