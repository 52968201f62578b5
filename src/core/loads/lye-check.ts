/** Whether a lye that was checked by a second way is still the lye of the formula. */

/** Two ways to one figure may part by so much of it: roundings and typical values, not another fat. */
export const SAME_SHARE = 0.01;

const isNear = (a: number, b: number) => Math.abs(a - b) <= SAME_SHARE * Math.max(a, b);
/** What moved by less than a scale shows is the same lye. */
const STILL_G = 0.05;

export type CheckStanding = 'none' | 'agrees' | 'parts' | 'changed';

/**
 * How a check stands: none made, both figures agree, they part, or the lye has changed since.
 *
 * @example checkStanding({ alkaliG: 140, secondG: 141 }, 140) // 'agrees'
 * @example checkStanding({ alkaliG: 140, secondG: 141 }, 152) // 'changed'
 */
export function checkStanding(
  check: { alkaliG: number; secondG: number } | undefined,
  alkaliG: number,
): CheckStanding {
  if (!check) return 'none';
  if (Math.abs(check.alkaliG - alkaliG) > STILL_G) return 'changed';
  return isNear(check.secondG, alkaliG) ? 'agrees' : 'parts';
}
