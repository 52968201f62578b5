/** A maker's own spoon: weighed a few times, its doubt is measured and no longer usual. */
import { VOLUME_UNITS } from '../quantities/units';
import type { SpoonUnit } from './spoons';

/** Fewer say nothing of how they spread. */
export const LEAST_SPOONS = 3;
/** Student's t for nine in ten, two-sided, by degrees of freedom from 2 on; beyond the table its last. */
const T_90 = [2.92, 2.353, 2.132, 2.015, 1.943, 1.895, 1.86, 1.833] as const;
/** Nobody levels a spoon better than so, percent. */
const LEAST_PCT = 2;
const DECIMALS = 4;

export interface OwnSpoon {
  meanG: number;
  /** Grams a millilitre of it weighs, spooned. */
  gPerMl: number;
  /** How far nine in ten spoons lie from the mean, percent. */
  pct: number;
}

/**
 * What some weights of one spoon, grams, say of the next; null of fewer than three, and of what is no weight.
 *
 * @example ownSpoon([4, 4, 4], 'tsp').pct // 2
 */
export function ownSpoon(weightsG: readonly number[], unit: SpoonUnit): OwnSpoon | null {
  const { length: count } = weightsG;
  if (count < LEAST_SPOONS || weightsG.some((one) => !(one > 0))) return null;
  const meanG = weightsG.reduce((sum, one) => sum + one, 0) / count;
  const spread = Math.sqrt(weightsG.reduce((sum, one) => sum + (one - meanG) ** 2, 0) / (count - 1));
  const t = T_90[Math.min(count - LEAST_SPOONS, T_90.length - 1)]!;
  const pct = (100 * t * spread * Math.sqrt(1 + 1 / count)) / meanG;
  return {
    meanG,
    gPerMl: Number((meanG / VOLUME_UNITS[unit]).toFixed(DECIMALS)),
    pct: Number(Math.max(LEAST_PCT, pct).toFixed(1)),
  };
}
