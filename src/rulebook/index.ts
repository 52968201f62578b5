/** The rulebook editions that ship, and the typed way to them. */
import type { Declarable } from '../core/formula/types';
import november2026 from './editions/2026-11.json';
import type { EditionFile, Rulebook } from './types';

const FILES: readonly EditionFile[] = [november2026 as unknown as EditionFile];

function declarables({ allergens, allergenLists }: EditionFile): Declarable[] {
  return allergenLists.flatMap(({ market, list, thresholdPct, newFrom, allFrom }) =>
    allergens
      .filter((allergen) => allergen.list === list)
      .map(({ id, name }) => ({ id, name, markets: [market], thresholdPct, newFrom, allFrom })),
  );
}

function load(file: EditionFile): Rulebook {
  const { edition, dated, scentStandard, limits, allergens, allergenLists } = file;
  return { edition, dated, scentStandard, limits, allergens, allergenLists, declarables: declarables(file) };
}

const EDITIONS: readonly Rulebook[] = FILES.map(load).sort((a, b) => (a.dated < b.dated ? 1 : -1));

/** The rulebook of an edition, or the newest one. Throws a RangeError for an edition that does not ship. */
export function rulebook(edition?: string): Rulebook {
  const found = edition === undefined ? EDITIONS[0] : EDITIONS.find((entry) => entry.edition === edition);
  if (!found) throw new RangeError(`There is no rulebook edition "${edition}".`);
  return found;
}
