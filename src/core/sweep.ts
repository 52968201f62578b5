/**
 * Many products at once: only the verdicts and headroom of each, by market. A ground is prepared once and
 * shared; every row is what a single assessment of that product would answer.
 */
import type { Verdict } from './formula/answer';
import type { Formula, Market, Material } from './formula/types';
import { reckon } from './assess';
import type { Ground } from './loads/ground';
import { binds, effectOnProduct, findAll, headroom, unprovenPairs, worseVerdict } from './loads/limits';

export interface SweepProduct {
  id: string;
  formula: Formula;
}

export interface SweepMarket {
  market: Market;
  verdict: Verdict;
  /** Least headroom over the binding limits, percent; null where none is in force or the limit is zero. */
  headroomPct: number | null;
  /** The limit with the least headroom. */
  limit: string | null;
}

export interface SweepRow {
  id: string;
  /** Null where the formula does not reckon: an unknown material, or percents that leave no batch. */
  markets: SweepMarket[] | null;
}

function emptyMarket(market: Market): SweepMarket {
  return { market, verdict: 'clear', headroomPct: null, limit: null };
}

/** Sweeps one product. `material` finds a material by id. */
export function sweepProduct(
  ground: Ground,
  product: SweepProduct,
  material: (id: string) => Material | undefined,
): SweepRow {
  const materials: Material[] = [];
  for (const line of product.formula.lines) {
    const found = material(line.material);
    if (!found) return { id: product.id, markets: null };
    materials.push(found);
  }
  const reckoning = reckon(product.formula, materials, ground);
  if (typeof reckoning === 'string') return { id: product.id, markets: null };
  const { plan, subjects, batch, all } = reckoning;
  const rows = ground.markets.map(emptyMarket);
  for (const { rule, found, verdict } of findAll(plan, subjects, all)) {
    // Where it speaks at all, the product is unproven, which weighs more.
    if (rule.limit.onlyUnproven) continue;
    const effect = effectOnProduct(rule.limit.force, verdict);
    const left = binds(rule.limit.force) ? headroom(found.highPct, rule.limit.maxPct) : null;
    for (const index of rule.marketIndexes) {
      const row = rows[index]!;
      row.verdict = worseVerdict(row.verdict, effect);
      if (left !== null && (row.headroomPct === null || left < row.headroomPct)) {
        row.headroomPct = left;
        row.limit = rule.limit.id;
      }
    }
  }
  for (const { market } of unprovenPairs(plan, subjects, batch.massG, rows.length)) {
    const row = rows[market]!;
    row.verdict = worseVerdict(row.verdict, 'unproven');
  }
  return { id: product.id, markets: rows };
}
