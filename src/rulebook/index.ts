/** The rulebook editions that ship, and the typed way to them. */
import type { Declarable, Market } from '../core/formula/types';
import november2026 from './editions/2026-11.json';
import november2026b from './editions/2026-11b.json';
import november2026c from './editions/2026-11c.json';
import craft2026b from './editions/craft-2026-11b.json';
import craft2026 from './editions/craft.json';
import type { CraftFile, CraftLimit, EditionFile, FollowingEdition, RuleLimit, Rulebook } from './types';

/** An edition with what it says anew in the place of what it follows. */
function following(before: EditionFile, { edition, dated, title, limits }: FollowingEdition): EditionFile {
  const anew = new Map(limits.map((limit) => [limit.id, limit]));
  const kept = before.limits.map((limit) => anew.get(limit.id) ?? limit);
  const added = limits.filter(({ id }) => !before.limits.some((limit) => limit.id === id));
  return { ...before, edition, dated, title, limits: [...kept, ...added] };
}

/** Every edition with the craft's advice of its time. An edition never changes; a new one is a new pair. */
const FILES = [
  [november2026, craft2026],
  [november2026b, craft2026b],
  [following(november2026b as unknown as EditionFile, november2026c as FollowingEdition), craft2026b],
] as unknown as readonly (readonly [EditionFile, CraftFile])[];

function declarables({ allergens, allergenLists }: EditionFile): Declarable[] {
  return allergenLists.flatMap(({ market, list, thresholdPct, newFrom, allFrom, per = 'product' }) =>
    allergens
      .filter((allergen) => allergen.list === list)
      .map(({ id, name }) => ({ id, name, markets: [market], thresholdPct, newFrom, allFrom, per })),
  );
}

const ADVICE = { force: 'craft', markets: null, from: null, to: null } as const;

function craftLimits({ limits, source, asOf, orientation = [], orientationSource = '' }: CraftFile) {
  const advised = limits.map(({ reason, ...row }): CraftLimit => ({
    ...row,
    ...ADVICE,
    source: `${reason} ${source}`,
    standing: 'craft',
    asOf,
    note: reason,
  }));
  const oriented = orientation.map((row): CraftLimit => ({
    ...row,
    ...ADVICE,
    usualPct: null,
    onlyUnproven: true,
    source: orientationSource,
    standing: 'typical',
    asOf,
  }));
  return [...advised, ...oriented];
}

/** Where a figure decides a verdict, its standing is read with its source. */
function withStanding(limit: RuleLimit): RuleLimit {
  return limit.standing === 'published'
    ? limit
    : { ...limit, source: `${limit.source} (${limit.standing}, confirm before use)` };
}

const EDITIONS: readonly Rulebook[] = FILES.map(([file, craft]) => ({
  ...file,
  limits: file.limits.map(withStanding),
  peroxides: file.peroxides ?? [],
  declarables: declarables(file),
  craft: craftLimits(craft),
  demands: craft.demands.map((demand) => ({ ...demand, source: craft.source })),
})).sort((a, b) => (a.dated < b.dated ? 1 : -1));

/** Names of the editions that ship, newest first. */
export const EDITION_NAMES: readonly string[] = EDITIONS.map(({ edition }) => edition);

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
