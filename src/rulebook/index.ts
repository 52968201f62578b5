/** The rulebook editions that ship, and the typed way to them. */
import type { Declarable, Market } from '../core/formula/types';
import november2026 from './editions/2026-11.json';
import craftFile from './editions/craft.json';
import type { CraftFile, CraftLimit, EditionFile, Rulebook } from './types';

const FILES: readonly EditionFile[] = [november2026 as unknown as EditionFile];
const CRAFT = craftFile as unknown as CraftFile;

function declarables({ allergens, allergenLists }: EditionFile): Declarable[] {
  return allergenLists.flatMap(({ market, list, thresholdPct, newFrom, allFrom }) =>
    allergens
      .filter((allergen) => allergen.list === list)
      .map(({ id, name }) => ({ id, name, markets: [market], thresholdPct, newFrom, allFrom })),
  );
}

const CRAFT_LIMITS: readonly CraftLimit[] = CRAFT.limits.map(({ reason, ...row }) => ({
  ...row,
  force: 'craft',
  markets: null,
  from: null,
  to: null,
  source: `${reason} ${CRAFT.source}`,
  standing: 'craft',
  asOf: CRAFT.asOf,
  note: reason,
}));

const DEMANDS = CRAFT.demands.map((demand) => ({ ...demand, source: CRAFT.source }));

const EDITIONS: readonly Rulebook[] = FILES.map((file) => ({
  ...file,
  declarables: declarables(file),
  craft: CRAFT_LIMITS,
  demands: DEMANDS,
})).sort((a, b) => (a.dated < b.dated ? 1 : -1));

/** The rulebook of an edition, or the newest one. Throws a RangeError for an edition that does not ship. */
export function rulebook(edition?: string): Rulebook {
  const found = edition === undefined ? EDITIONS[0] : EDITIONS.find((entry) => entry.edition === edition);
  if (!found) throw new RangeError(`There is no rulebook edition "${edition}".`);
  return found;
}

/**
 * Whether a market lets a part into a cosmetic as a colour; `unlisted` where the rulebook does not know. Soap
 * that is only soap is outside the US rule.
 */
export function colourPermission(
  book: Rulebook,
  name: string,
  market: Market,
): 'permitted' | 'notPermitted' | 'unlisted' {
  const permitted = book.colours.find((entry) => entry.name === name)?.permitted[market];
  if (permitted === undefined) return 'unlisted';
  return permitted ? 'permitted' : 'notPermitted';
}
