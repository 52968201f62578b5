/**
 * The step of a scale's display, seen from what it shows: a display switched to ounces, or one that shows whole grams, moves
 * in other steps than was said. Pure.
 */
import { GRAMS_PER_OUNCE, GRAMS_PER_POUND } from '../quantities/units';

/** Steps that displays have, in their units. */
const DECIMAL = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50] as const;
const OUNCES = [0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1] as const;
const POUNDS = [0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1] as const;

/** Every step, grams, coarse ones first. */
const STEPS_G: readonly number[] = [
  ...DECIMAL,
  ...OUNCES.map((step) => step * GRAMS_PER_OUNCE),
  ...POUNDS.map((step) => step * GRAMS_PER_POUND),
].sort((a, b) => b - a);

/** Displays of so many decimals. */
const TENTHS = [1, 0.1, 0.01] as const;

/** A value lies on a grid of steps within so much of one. */
const WITHIN = 0.02;
/** So many different values on a coarser grid lie there by no chance. */
const ENOUGH = 6;
/** Different values that are remembered. */
export const MOST_SEEN = 12;

const liesOn = (g: number, stepG: number) => Math.abs(g / stepG - Math.round(g / stepG)) <= WITHIN;

/**
 * The step of a display from the different values it showed lately; `saidG` is what was said of it, and stands until the
 * values speak against it: one that lies between its steps, or enough that all lie on coarser ones.
 *
 * @example
 * stepSeen([1.4, 2.8, 4.3, 5.7, 7.1, 8.5], 0.1) // 1.4175: twentieths of an ounce
 */
export function stepSeen(values: readonly number[], saidG: number): number {
  const fits = (stepG: number) => values.every((g) => liesOn(g, stepG));
  if (values.length >= ENOUGH) return [...STEPS_G, saidG].sort((a, b) => b - a).find(fits) ?? saidG;
  if (fits(saidG)) return saidG;
  // A few values: decimals tell a finer display; anything else is taken for as coarse as it may be.
  return TENTHS.find((stepG) => stepG < saidG && fits(stepG)) ?? STEPS_G.find(fits) ?? saidG;
}

/** The values a display showed lately, each once, with the newest; one between its steps begins anew: it was switched. */
export function seenWith(values: readonly number[], g: number, stepG: number): readonly number[] {
  if (values.at(-1) === g) return values;
  if (!liesOn(g, stepG)) return [g];
  return [...values.filter((one) => one !== g), g].slice(-MOST_SEEN);
}

/**
 * Decimals of grams that tell a display's steps apart: none for whole grams, one for tenths, and one for ounces.
 *
 * @example
 * decimalsOf(0.05) // 2
 */
export function decimalsOf(stepG: number): number {
  const isWhole = Number.isInteger(stepG);
  return isWhole ? 0 : Math.max(1, Math.ceil(-Math.log10(stepG) - 1e-9));
}
