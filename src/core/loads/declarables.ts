/** Which constituents have to be named on the label, by market and date (assessment page, step 12). */
import type { AssessedDeclarable } from '../formula/answer';
import type { Declarable, Market } from '../formula/types';
import { concentration, type Section, type Subjects } from './sections';

/** The days that decide whether a name is asked for in a market. */
export interface PlacedDays {
  onDate: string;
  /** When the product first came on that market. */
  firstPlaced: string;
  /** When the units looked at were placed on it. */
  placed: string;
}

/**
 * Whether a declarable applies on a day: to everything sold from `allFrom` on; from `newFrom` on to products that
 * first came on the market since, or, where it goes by the unit, to units placed since, however old the product
 * is. A missing date means that day has not been set.
 */
export function declarableApplies(
  { newFrom, allFrom, per }: Pick<Declarable, 'newFrom' | 'allFrom' | 'per'>,
  { onDate, firstPlaced, placed }: PlacedDays,
): boolean {
  if (allFrom != null && onDate >= allFrom) return true;
  const counts = per === 'unit' ? placed : firstPlaced;
  return newFrom != null && counts >= newFrom && onDate >= newFrom;
}

/** What an assessment says of when things came on each market. */
export interface Placing {
  onDate: string;
  firstPlacedOn: Partial<Record<Market, string>>;
  placedOn: Partial<Record<Market, string>>;
}

/** What the cured bar holds of a constituent where it holds most of it, percent at both ends of the doubt. */
function mostHeld(k: number, all: readonly Section[]): { lowPct: number; highPct: number } {
  let lowPct = 0;
  let highPct = 0;
  for (const section of all) {
    const found = concentration(section, k, 'cured');
    lowPct = Math.max(lowPct, found.lowPct);
    highPct = Math.max(highPct, found.highPct);
  }
  return { lowPct, highPct };
}

/** The declarables that apply in each market and are in the bar, by market and falling concentration. */
export function assessDeclarables(
  subjects: Subjects,
  all: readonly Section[],
  markets: readonly Market[],
  { onDate, firstPlacedOn, placedOn }: Placing,
): AssessedDeclarable[] {
  const held: { declarable: Declarable; lowPct: number; highPct: number }[] = [];
  for (let k = 0; k < subjects.count; k++) {
    if (!subjects.isCarried[k] || subjects.declarables[k]!.length === 0) continue;
    const { lowPct, highPct } = mostHeld(k, all);
    for (const declarable of subjects.declarables[k]!) held.push({ declarable, lowPct, highPct });
  }
  held.sort((a, b) => b.highPct - a.highPct || (a.declarable.name < b.declarable.name ? -1 : 1));
  return markets.flatMap((market) => {
    const days = {
      onDate,
      firstPlaced: firstPlacedOn[market] ?? onDate,
      placed: placedOn[market] ?? onDate,
    };
    const rows: AssessedDeclarable[] = [];
    for (const { declarable, lowPct, highPct } of held) {
      if (!declarable.markets.includes(market) || !declarableApplies(declarable, days)) continue;
      const { id, name, thresholdPct } = declarable;
      const declare = highPct > thresholdPct;
      const certain = lowPct > thresholdPct;
      rows.push({ market, id, name, thresholdPct, lowPct, highPct, declare, certain });
    }
    return rows;
  });
}
