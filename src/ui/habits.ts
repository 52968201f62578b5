/** What this house is used to, as every page says it on its root: degrees and ounces, for whatever is drawn in the browser. */
import { useSyncExternalStore } from 'react';
import { USUAL_HABITS, type Habits } from '../core/records/house';
import { unitRule } from '../core/quantities/units';

let known: Habits | null = null;

/** The habits of the page, which says them once; the usual ones where there is none. */
export function habits(): Habits {
  if (typeof document === 'undefined') return USUAL_HABITS;
  const { degrees, weights } = document.documentElement.dataset;
  known ??= { degrees: degrees === 'F' ? 'F' : 'C', weights: weights === 'oz' ? 'oz' : 'g' };
  return known;
}

const never = () => () => undefined;

/** The same for what is drawn on the server first, where no page is known yet. */
export const useHabits = (): Habits => useSyncExternalStore(never, habits, () => USUAL_HABITS);

/** °C as the house says it, a bare number. */
export const inDegrees = (c: number, { degrees }: Pick<Habits, 'degrees'> = habits()): number =>
  degrees === 'F' ? (c * 9) / 5 + 32 : c;

/** °C of what was said in the degrees of the house. */
export const fromDegrees = (said: number, { degrees }: Pick<Habits, 'degrees'> = habits()): number =>
  degrees === 'F' ? ((said - 32) * 5) / 9 : said;

/** °C as words of the house: "40 °C", "104 °F". */
export const degreesWords = (c: number, of: Pick<Habits, 'degrees'> = habits()): string =>
  `${Math.round(inDegrees(c, of))} °${of.degrees}`;

/** Grams in what this house weighs in, for a line that is new. */
export function newAmount(massG: number): { value: number; unit: Habits['weights'] } {
  const unit = habits().weights;
  const perUnit = unitRule(unit)?.factor ?? 1;
  return { value: Number((massG / perUnit).toFixed(2)), unit };
}
