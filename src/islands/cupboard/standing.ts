/** What is to be minded about a material: missing or old papers, old bottles, low stock. */
import type { Lot } from '../../core/making/cost';
import { isScent } from '../../core/formula/scents';
import { hasTooMuchPeroxide, storageCaution, type PeroxideCondition } from '../../core/scent/storage';
import type { CupboardEntry } from '../../core/records/cupboard';

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
  { material, papers, lots, mix }: CupboardEntry,
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
