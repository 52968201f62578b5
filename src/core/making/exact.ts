/** How exact a step must be, from the tolerances that are reckoned already, and why. */
import type { Measure } from '../formula/types';
import { ALKALI_LINE, LYE_STOCK_LINE, type Weigh } from './run-sheet-types';

export interface Exactness {
  /** `gram`: to the gram. `within`: within so many percent. Else as unsure a way as the formula names is fine. */
  how: 'gram' | 'within' | 'spoon' | 'heaped' | 'eye';
  /** The least and the most that still count as right, grams. */
  fromG: number;
  toG: number;
  /** The wider of both sides, percent of the mass. */
  pct: number;
  why: string;
}

const PER_HUNDRED = 100;
/** Where the room above is so much less than below, a limit is what holds it. */
const HELD_SHARE = 0.999;

/**
 * How exact a weighing must be; `measure` is how the formula has it measured.
 *
 * @example exactness({ line: 'alkali', massG: 140, underG: 0.7, overG: 0.7 }, 'scale').how // 'gram'
 */
export function exactness(
  { line, massG, underG, overG }: Pick<Weigh, 'line' | 'massG' | 'underG' | 'overG'>,
  measure: Measure,
): Exactness {
  const pct = massG > 0 ? (PER_HUNDRED * Math.max(underG, overG)) / massG : 0;
  const range = { fromG: massG - underG, toG: massG + overG, pct };
  if (line === ALKALI_LINE || line === LYE_STOCK_LINE)
    return { how: 'gram', ...range, why: 'too little leaves it greasy, too much burns' };
  if (overG < underG * HELD_SHARE)
    return { how: 'within', ...range, why: 'never more than that: a limit holds it' };
  if (measure !== 'scale') return { how: measure, ...range, why: 'the bar was reckoned with that doubt' };
  return { how: 'within', ...range, why: 'the proportions of the bar bear so much' };
}
