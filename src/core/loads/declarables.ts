/** Which constituents have to be named on the label, by market and date (assessment page, step 12). */
import type { AssessedDeclarable } from '../formula/answer';
import type { Declarable, Market } from '../formula/types';
import { concentration, type Section, type Subjects } from './sections';

/**
 * Whether a declarable applies on a day to a product first placed on the market on `firstPlaced`: to every
 * product from `allFrom`, to newly placed ones from `newFrom`. A missing date means that day has not been set.
 */
export function declarableApplies(
  { newFrom, allFrom }: Pick<Declarable, 'newFrom' | 'allFrom'>,
  onDate: string,
  firstPlaced: string,
): boolean {
  if (allFrom != null && onDate >= allFrom) return true;
  return newFrom != null && firstPlaced >= newFrom && onDate >= newFrom;
}

function assessOne(
  declarable: Declarable,
  market: Market,
  k: number,
  all: readonly Section[],
): AssessedDeclarable {
  let lowPct = 0;
  let highPct = 0;
  for (const section of all) {
    const found = concentration(section, k, 'cured');
    lowPct = Math.max(lowPct, found.lowPct);
    highPct = Math.max(highPct, found.highPct);
  }
  const { id, name, thresholdPct } = declarable;
  const declare = highPct > thresholdPct;
  return { market, id, name, thresholdPct, lowPct, highPct, declare, certain: lowPct > thresholdPct };
}

/** The declarables that apply in each market and are in the bar, by market and falling concentration. */
export function assessDeclarables(
  subjects: Subjects,
  all: readonly Section[],
  markets: readonly Market[],
  onDate: string,
  firstPlacedOn: Partial<Record<Market, string>>,
): AssessedDeclarable[] {
  return markets.flatMap((market) => {
    const rows: AssessedDeclarable[] = [];
    for (let k = 0; k < subjects.count; k++) {
      if (!subjects.isCarried[k]) continue;
      for (const declarable of subjects.declarables[k]!) {
        if (!declarable.markets.includes(market)) continue;
        if (!declarableApplies(declarable, onDate, firstPlacedOn[market] ?? onDate)) continue;
        rows.push(assessOne(declarable, market, k, all));
      }
    }
    return rows.sort((a, b) => b.highPct - a.highPct || (a.name < b.name ? -1 : 1));
  });
}
