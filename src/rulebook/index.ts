/** The rulebook editions that ship, and the typed way to them. */
import { MARKETS, type Declarable, type Market } from '../core/formula/types';
import type { ColourKnown } from '../core/labels/checklist';
import { LABEL_MANNERS } from '../core/labels/manners';
import november2026 from './editions/2026-11.json';
import november2026b from './editions/2026-11b.json';
import november2026c from './editions/2026-11c.json';
import december2026 from './editions/2026-12.json';
import craft2026b from './editions/craft-2026-11b.json';
import craftDecember2026 from './editions/craft-2026-12.json';
import craft2026 from './editions/craft.json';
import type {
  ColourEntry,
  CraftFile,
  CraftLimit,
  EditionFile,
  FollowingCraft,
  FollowingEdition,
  RuleLimit,
  Rulebook,
} from './types';

/** Rows with what is said anew in their places, and what is new after them. */
function renewed<Row>(before: readonly Row[], anew: readonly Row[], key: (row: Row) => string): Row[] {
  const byKey = new Map(anew.map((row) => [key(row), row]));
  const known = new Set(before.map(key));
  return [...before.map((row) => byKey.get(key(row)) ?? row), ...anew.filter((row) => !known.has(key(row)))];
}

const idOf = ({ id }: { id: string }) => id;

/** An edition with what it says anew in the place of what it follows. */
function following(before: EditionFile, anew: FollowingEdition): EditionFile {
  const { edition, dated, title, limits, colours = [], allergens = [], peroxides = [] } = anew;
  const gone = new Set(anew.dropped ?? []);
  return {
    ...before,
    ...{ edition, dated, title },
    limits: renewed(before.limits, limits, idOf).filter(({ id }) => !gone.has(id)),
    colours: renewed(before.colours, colours, ({ name }) => name),
    allergens: renewed(before.allergens, allergens, idOf),
    peroxides: renewed(before.peroxides ?? [], peroxides, idOf).filter(({ id }) => !gone.has(id)),
    conditions: renewed(before.conditions ?? [], anew.conditions ?? [], idOf).filter(
      ({ id }) => !gone.has(id),
    ),
    ...(anew.judgesColours === undefined ? {} : { judgesColours: anew.judgesColours }),
  };
}

/** The craft's advice with what is said anew; a row that stays keeps the day it was read. */
function followingCraft(before: CraftFile, anew: FollowingCraft): CraftFile {
  const bearings = anew.orientation.map((row) => ({ ...row, source: anew.orientationSource }));
  return {
    ...before,
    limits: renewed(before.limits, anew.limits, idOf),
    orientation: renewed(before.orientation ?? [], bearings, idOf),
  };
}

const SECOND = november2026b as unknown as EditionFile;
const THIRD = following(SECOND, november2026c as FollowingEdition);
const FOURTH = following(THIRD, december2026 as unknown as FollowingEdition);

/** Every edition with the craft's advice of its time. An edition never changes; a new one is a new pair. */
const FILES = [
  [november2026, craft2026],
  [SECOND, craft2026b],
  [THIRD, craft2026b],
  [FOURTH, followingCraft(craft2026b as unknown as CraftFile, craftDecember2026 as FollowingCraft)],
] as unknown as readonly (readonly [EditionFile, CraftFile])[];

/** How a title reads that was printed otherwise in its file, which stays as it shipped. */
const RETITLED: Readonly<Record<string, string>> = { '2026-11b': 'Second edition' };

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
    source: row.source ?? orientationSource,
    standing: 'typical',
    asOf,
  }));
  return [...advised, ...oriented];
}

/** Where a figure decides a verdict, its standing and what to mind with it are read with its source. */
function withStanding(limit: RuleLimit): RuleLimit {
  const { standing, note } = limit;
  const source =
    standing === 'published' ? limit.source : `${limit.source} (${standing}, confirm before use)`;
  return { ...limit, source: note ? `${source}. ${note}` : source };
}

const slug = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

/** What a colour's row says where it is not let in. */
function barredWords(colour: ColourEntry, market: Market): string {
  const where = LABEL_MANNERS[market].keepsSoapApart
    ? `Not on the list of colours for cosmetics in the ${market}; soap that is sold only as soap stands outside it`
    : `Not on the list of colours for cosmetics in the ${market}`;
  return colour.note ? `${where}. ${colour.note.replace(/\.$/, '')}` : where;
}

/**
 * A row for every market that does not let a colour in. It binds where the list is published and speaks of soap too;
 * else it is advice: soap that is only soap stands outside the US list, and a plant powder may be in for something else.
 */
function colourLimits({ colours, colourSource, judgesColours }: EditionFile): CraftLimit[] {
  if (!judgesColours) return [];
  const barred = colours.flatMap((colour) =>
    MARKETS.filter((market) => colour.permitted[market] === false).map((market) => ({ colour, market })),
  );
  return barred.map(({ colour, market }): CraftLimit => {
    const standing = colour.standing?.[market] ?? colourSource.standing;
    const isBinding = standing === 'published' && !LABEL_MANNERS[market].keepsSoapApart;
    const source = barredWords(colour, market);
    return {
      id: `${market.toLowerCase()}-colour-${slug(colour.name)}`,
      subject: { type: 'colour', id: colour.name },
      ...{ maxPct: 0, basis: 'cured', force: isBinding ? 'law' : 'craft', usualPct: null },
      ...{ markets: [market], from: null, to: null, source, standing: isBinding ? standing : 'typical' },
      asOf: colourSource.asOf,
    };
  });
}

function toRulebook([file, craft]: readonly [EditionFile, CraftFile]): Rulebook {
  const colours = colourLimits(file);
  const ofForce = (isLaw: boolean) => colours.filter(({ force }) => (force === 'law') === isLaw);
  return {
    ...file,
    title: RETITLED[file.edition] ?? file.title,
    limits: [...file.limits.map(withStanding), ...ofForce(true)],
    peroxides: file.peroxides ?? [],
    conditions: file.conditions ?? [],
    declarables: declarables(file),
    craft: [...craftLimits(craft), ...ofForce(false)],
    demands: craft.demands.map((demand) => ({ ...demand, source: craft.source })),
  };
}

const EDITIONS: readonly Rulebook[] = FILES.map(toRulebook).sort((a, b) => (a.dated < b.dated ? 1 : -1));

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

/** What the rulebook knows of a colour in a market: whether it is let in, what to mind, and what a paper has to show. */
export function colourKnown(book: Rulebook, name: string, market: Market): ColourKnown {
  const note = book.colours.find((entry) => entry.name === name)?.note ?? null;
  const asks = book.conditions
    .filter(({ of, markets }) => of.type === 'colour' && of.id === name && markets.includes(market))
    .map((condition) => condition.asks);
  return { permission: colourPermission(book, name, market), note, asks };
}
