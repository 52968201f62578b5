/** What is to be minded about a material: missing or old papers, old bottles, low stock. */
import type { Lot } from '../making/cost';
import { isScent } from '../formula/scents';
import { hasTooMuchPeroxide, storageCaution, type PeroxideCondition } from '../scent/storage';
import type { CupboardEntry, CupboardRow } from '../records/cupboard';

export interface Sign {
  short: string;
  full: string;
  grave: boolean;
}

/** Grams left over all lots. */
export function stockOf(lots: readonly Lot[]): number {
  return lots.reduce((sum, { leftG }) => sum + leftG, 0);
}

/** The day looked at, and what oils may hold of peroxide. */
export interface Minding {
  today: string;
  peroxides: readonly PeroxideCondition[];
}

/** Everything to mind about a material on a day, gravest first. */
export function signsOf(
  { material, papers, lots, mix, conditions }: CupboardEntry,
  { today, peroxides }: Minding,
): Sign[] {
  const signs: Sign[] = [];
  if (!mix && isScent(material) && !papers.certificate) {
    signs.push({
      short: 'no certificate',
      full: 'No certificate on file: every bar with it is unproven. Ask the supplier for one.',
      grave: true,
    });
  }
  if (papers.certificate?.ask) {
    signs.push({ short: 'ask for paper', full: papers.certificate.ask, grave: false });
  }
  for (const stand of conditions.filter(({ state }) => state !== 'met')) {
    const isNotMet = stand.state === 'notMet';
    signs.push({
      short: isNotMet ? 'condition not met' : 'ask for paper',
      full: `${isNotMet ? 'Not met' : 'A paper has to show it'}: ${stand.condition.asks} (${stand.condition.markets.join(', ')}).`,
      grave: isNotMet,
    });
  }
  for (const lot of lots.filter(({ leftG }) => leftG > 0)) {
    if (lot.bestBefore && lot.bestBefore < today) {
      const full = `Lot ${lot.code} is past its best-before day, ${lot.bestBefore}.`;
      signs.push({ short: 'past its day', full, grave: true });
    }
    const caution = storageCaution(material, lot, today, peroxides);
    const isTooMuch = hasTooMuchPeroxide(material, lot, today, peroxides);
    if (caution)
      signs.push({
        short: isTooMuch ? 'too much peroxide' : 'opened long ago',
        full: `Lot ${lot.code}: ${caution}`,
        grave: isTooMuch,
      });
  }
  const seen = new Set<string>();
  return signs
    .filter(({ full }) => !seen.has(full) && seen.add(full))
    .sort((a, b) => Number(b.grave) - Number(a.grave));
}

/**
 * One line of the cupboard for a material: what it is, how much is there, and what is to be minded on a day.
 *
 * @example
 * rowOf(entry, { today: '2026-11-24', peroxides }).stockG; // grams over all lots
 */
export function rowOf(entry: CupboardEntry, minding: Minding): CupboardRow {
  const { material, supplier, lots, mix, usedIn } = entry;
  const row: CupboardRow = {
    id: material.id,
    name: material.name,
    kind: mix ? 'mix' : material.kind,
    inci: (material.inci ?? []).map(({ name }) => name),
    usedIn,
  };
  if (supplier !== null) row.supplier = supplier;
  if (lots.length > 0) row.stockG = stockOf(lots);
  const signs = signsOf(entry, minding);
  if (signs.length > 0) {
    const words = [...new Set(signs.map(({ short }) => short))];
    row.signs = { words, isGrave: signs.some(({ grave }) => grave) };
  }
  return row;
}
