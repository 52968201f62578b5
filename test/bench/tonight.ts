/** What to pour tonight by what a pour is worth, against two simple rules, over years of simulated sales. */
import { byTurns, byWorth, soldYears, whenNearlyGone, type SoldYear } from '../support/sold-years';
import { sized } from './size';

const YEARS = sized(200, 3);

const told = ({ lost, outOfStock, stale, pours }: SoldYear) => ({
  lostPct: Number((100 * lost).toFixed(1)),
  outOfStockPct: Number((100 * outOfStock).toFixed(1)),
  tooOldBars: Number(stale.toFixed(1)),
  pours: Number(pours.toFixed(1)),
});

/** Prints one line. */
export function benchTonight(): void {
  console.log(
    JSON.stringify({
      measure: `what to pour tonight, over ${YEARS} simulated years of 8 bars, against two rules`,
      byWorth: told(soldYears(YEARS, byWorth)),
      whenNearlyGone: told(soldYears(YEARS, whenNearlyGone(2))),
      eightWeeksAhead: told(soldYears(YEARS, whenNearlyGone(8))),
      byTurns: told(soldYears(YEARS, byTurns)),
    }),
  );
}
