/** What became of a pour and what may go wrong with it: gel, ring, cracks, scorched milk, ash. Craft. */
import { ASH_BELOW_C, ASH_WATER_PCT, CRACK_C, CRACK_SUGARS_PCT, SCORCH_C } from './figures';
import type { HeatBatter, Pour, Run } from './types';

/** Gelled through, in part with a ring to be seen, or not at all. */
export const OUTCOMES = ['through', 'ring', 'none'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** Shares of runs, 0 to 1. */
export interface Chances extends Record<Outcome, number> {
  /** Cracks or pushes up. */
  crack: number;
  /** Milks go brown. */
  scorch: number;
  /** White ash on top. */
  ash: number;
}

/** A block that is gelled but for so little is gelled through; one gelled by so little is not. */
const THROUGH_FROM = 0.97;
const NONE_BELOW = 0.03;

/** What a run gave. */
export function outcomeOf({ gelledShare }: Run): Outcome {
  if (gelledShare >= THROUGH_FROM) return 'through';
  return gelledShare < NONE_BELOW ? 'none' : 'ring';
}

const pctOfFats = (batters: readonly HeatBatter[], of: (batter: HeatBatter) => number) => {
  const fatsG = batters.reduce((sum, one) => sum + one.fatsG, 0);
  return fatsG > 0 ? (100 * batters.reduce((sum, one) => sum + of(one), 0)) / fatsG : 0;
};

/** Sugars that heat, and so crack, a block: from this share of the fats on. */
export const hasSugars = ({ batters }: Pour): boolean =>
  batters.some((batter) => pctOfFats([batter], ({ sugarsG }) => sugarsG) >= CRACK_SUGARS_PCT);
const hasMilk = ({ batters }: Pour) => batters.some(({ milkG }) => milkG > 0);
const isWet = ({ batters, around }: Pour) =>
  around.way !== 'warm' && pctOfFats(batters, ({ waterG }) => waterG) >= ASH_WATER_PCT;

/** How often, of some runs, each thing came about. */
export function chancesOf(pour: Pour, runs: readonly Run[]): Chances {
  const share = (test: (run: Run) => boolean) => runs.filter(test).length / runs.length;
  const hottest = (run: Run) => run.peakC.reduce((most, c) => Math.max(most, c), -Infinity);
  return {
    through: share((run) => outcomeOf(run) === 'through'),
    ring: share((run) => outcomeOf(run) === 'ring'),
    none: share((run) => outcomeOf(run) === 'none'),
    crack: hasSugars(pour) ? share((run) => hottest(run) > CRACK_C) : 0,
    scorch: hasMilk(pour) ? share((run) => hottest(run) > SCORCH_C) : 0,
    ash: isWet(pour) ? share(({ peakTopC }) => peakTopC < ASH_BELOW_C) : 0,
  };
}
