/**
 * Many products at once: only the verdicts and headroom of each, by market. A ground is prepared once and
 * shared; every row is what a single assessment of that product would answer.
 */
import type { Formula, Material } from './formula/types';
import { reckon } from './assess';
import type { Ground } from './loads/ground';
import { marketStands, type MarketStand } from './loads/limits';

export interface SweepProduct {
  id: string;
  formula: Formula;
}

export type SweepMarket = MarketStand;

export interface SweepRow {
  id: string;
  /** Null where the formula does not reckon: an unknown material, or percents that leave no batch. */
  markets: SweepMarket[] | null;
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
  return { id: product.id, markets: marketStands(plan, subjects, all, batch.massG, ground.markets) };
}
