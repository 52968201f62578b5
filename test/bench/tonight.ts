/** What to pour tonight by what a pour is worth, against two simple rules, over years of simulated sales. */
import {
  bySixWeeks,
  byTurns,
  byWorth,
  soldYears,
  whenNearlyGone,
  type SoldYear,
} from '../support/sold-years';
import loadHighs from 'highs';
import { solveWith } from '../../src/core/numerics/highs';
import { sized } from './size';

const YEARS = sized(200, 3);

const told = ({ lost, outOfStock, stale, pours }: SoldYear) => ({
  lostPct: Number((100 * lost).toFixed(1)),
  outOfStockPct: Number((100 * outOfStock).toFixed(1)),
  tooOldBars: Number(stale.toFixed(1)),
  pours: Number(pours.toFixed(1)),
});

/** Hundreds of plans a year: fewer years of them. */
const PLANNED_YEARS = sized(10, 1);

/** Prints two lines. */
export async function benchTonight(): Promise<void> {
  console.log(
    JSON.stringify({
      measure: `what to pour tonight, over ${YEARS} simulated years of 8 bars, against two rules`,
      byWorth: told(soldYears(YEARS, () => byWorth)),
      whenNearlyGone: told(soldYears(YEARS, () => whenNearlyGone(2))),
      eightWeeksAhead: told(soldYears(YEARS, () => whenNearlyGone(8))),
      byTurns: told(soldYears(YEARS, () => byTurns)),
    }),
  );
  const solve = solveWith(await loadHighs());
  console.log(
    JSON.stringify({
      measure: `six weeks of pours planned every week, over ${PLANNED_YEARS} of these years, against tonight's worth alone`,
      bySixWeeks: told(soldYears(PLANNED_YEARS, () => bySixWeeks(solve))),
      byWorth: told(soldYears(PLANNED_YEARS, () => byWorth)),
    }),
  );
}
