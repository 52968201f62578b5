/** The ingredient list of a market: parts merged under the market's names, allergens added, in order. */
import type { IngredientItem, IngredientList, School } from '../formula/answer';
import type { Market } from '../formula/types';
import type { Part } from './parts';

/** What water and a merged scent are called on a list (assessment page, step 13). */
const NAMES: Record<Market, { water: string; scent: string }> = {
  EU: { water: 'Aqua', scent: 'Parfum' },
  UK: { water: 'Aqua', scent: 'Parfum' },
  US: { water: 'Water', scent: 'Fragrance' },
  CA: { water: 'Aqua/Water/Eau', scent: 'Parfum' },
  AU: { water: 'Water', scent: 'Fragrance' },
};

/** `named`: only fragrance oils become one scent entry; essential oils stand under their own names. */
type ScentNaming = 'parfum' | 'named';

/** What parts are merged under: a market's names, or stand-ins that every market's names take the place of. */
interface Naming {
  water: string;
  scent: string;
  market: Market | null;
  scentNaming: ScentNaming;
}

/** Stand-ins begin with a character that no ingredient name holds. */
const STAND_INS = { water: '\u0000water', scent: '\u0000scent' };

function entryName(part: Part, { water, scent, market, scentNaming }: Naming): string {
  if (part.role === 'water') return water;
  if (part.role === 'scent' && (scentNaming === 'parfum' || part.kind === 'fragrance')) return scent;
  return (market && part.names?.[market]) ?? part.name;
}

/** An entry while it is made, with the declarable constituents that it is as a whole. */
interface Entry extends IngredientItem {
  standsFor: ReadonlySet<string>;
}

const NOTHING: ReadonlySet<string> = new Set();

/** Colourants last, heavy before light, equal masses by name. */
function byRank(a: IngredientItem, b: IngredientItem): number {
  if (a.role !== b.role) {
    const colour = Number(a.role === 'colourant') - Number(b.role === 'colourant');
    if (colour !== 0) return colour;
  }
  if (a.massG !== b.massG) return b.massG - a.massG;
  return a.name < b.name ? -1 : Number(a.name > b.name);
}

/** Merges parts of the same name, in order of rank. The heaviest part gives an entry its role. */
function merge(parts: readonly Part[], naming: Naming, perGram: number): Entry[] {
  const places = new Map<string, number>();
  const items: Entry[] = [];
  const heaviestG: number[] = [];
  for (const part of parts) {
    const { massG, role } = part;
    if (!(massG > 0)) continue;
    const name = entryName(part, naming);
    // Merged under a scent's one name nothing of it is told apart.
    const whole = part.standsFor && name === part.name ? part.standsFor : NOTHING;
    const place = places.get(name);
    if (place === undefined) {
      places.set(name, items.length);
      items.push({ name, massG, pct: 0, role, standsFor: whole });
      heaviestG.push(massG);
      continue;
    }
    const item = items[place]!;
    item.massG += massG;
    if (massG > heaviestG[place]!) {
      heaviestG[place] = massG;
      item.role = role;
    }
  }
  for (const item of items) item.pct = item.massG * perGram;
  return items.sort(byRank);
}

const withoutBrackets = (name: string) => name.replace(/ \([^)]*\)/g, '').toLowerCase();

/** An oil that stands on a list under its own name. */
const isNamedScent = ({ role, name }: IngredientItem, scent: string) => role === 'scent' && name !== scent;

/**
 * An oil that stands under its own name and is declared too is written once, by the name that the list of allergens
 * has for it; two oils that it names alike are one entry. `standsFor` says of an entry which constituents it is.
 */
function declaredOnce(
  items: readonly IngredientItem[],
  standsFor: readonly ReadonlySet<string>[],
  allergens: readonly DeclaredAllergen[],
  scent: string,
): IngredientItem[] {
  const found = new Map<string, IngredientItem>();
  items.forEach((item, at) => {
    const allergen =
      isNamedScent(item, scent) &&
      allergens.find(
        ({ id, name }) => standsFor[at]!.has(id) || withoutBrackets(name) === withoutBrackets(item.name),
      );
    const name = allergen ? allergen.name : item.name;
    const before = found.get(name);
    if (!before) found.set(name, { ...item, name });
    else {
      before.massG += item.massG;
      before.pct += item.pct;
    }
  });
  return [...found.values()];
}

/** Markets in which some part has a name of its own. */
function marketsNamed(parts: readonly Part[]): ReadonlySet<string> {
  const markets = new Set<string>();
  for (const { names } of parts) if (names) for (const market of Object.keys(names)) markets.add(market);
  return markets;
}

/** A constituent to declare, with its typical mass in the batch. */
export interface DeclaredAllergen {
  id: string;
  name: string;
  massG: number;
}

/** A list with what it was made for: the names of a market, and what is to be declared there. */
interface Made {
  /** The market that gave its names to water and scent. */
  names: (typeof NAMES)[Market];
  /** The market, where a part has a name of its own in it. */
  own: Market | null;
  allergens: readonly DeclaredAllergen[];
  items: IngredientItem[];
  text: string;
}

function declaresSame(a: readonly DeclaredAllergen[], b: readonly DeclaredAllergen[]): boolean {
  if (a.length !== b.length) return false;
  for (let at = 0; at < a.length; at++)
    if (a[at]!.name !== b[at]!.name || a[at]!.massG !== b[at]!.massG) return false;
  return true;
}

const asksSame = (
  made: Made,
  { water, scent }: Made['names'],
  own: Made['own'],
  allergens: Made['allergens'],
) =>
  made.names.water === water &&
  made.names.scent === scent &&
  made.own === own &&
  declaresSame(made.allergens, allergens);

/**
 * Makes the lists of one school: give it a market and the allergens to declare there. `wholeG` is the mass
 * that percents are of: the pour as added, the cured bar as formed. Declared allergens are entries of their
 * own and are not taken off the scent; one whose name already stands on the list is not written twice.
 */
export function ingredientLister(
  parts: readonly Part[],
  school: School,
  scentNaming: ScentNaming,
  wholeG: number,
): (market: Market, allergens: readonly DeclaredAllergen[]) => IngredientList {
  const perGram = wholeG > 0 ? 100 / wholeG : 0;
  const shared = merge(parts, { ...STAND_INS, market: null, scentNaming }, perGram);
  const named = marketsNamed(parts);
  const inMarket = (market: Market): Entry[] => {
    const { water, scent } = NAMES[market];
    const collides = shared.some(({ name }) => name === water || name === scent);
    if (!collides && !named.has(market)) return shared;
    return merge(parts, { water, scent, market, scentNaming }, perGram);
  };
  const listOf = (market: Market, allergens: readonly DeclaredAllergen[]): IngredientItem[] => {
    const { water, scent } = NAMES[market];
    const entries = inMarket(market);
    let items = entries.map(({ name: standIn, massG, pct, role }): IngredientItem => {
      const name = standIn === STAND_INS.water ? water : standIn === STAND_INS.scent ? scent : standIn;
      return { name, massG, pct, role };
    });
    if (allergens.length > 0 && items.some((item) => isNamedScent(item, scent))) {
      const standsFor = entries.map((entry) => entry.standsFor);
      items = declaredOnce(items, standsFor, allergens, scent);
    }
    const stands = new Set<string>();
    if (allergens.length > 0) for (const { name } of items) stands.add(name);
    for (const { name, massG } of allergens) {
      if (!stands.has(name)) items.push({ name, massG, pct: massG * perGram, role: 'allergen' });
    }
    return items.sort(byRank);
  };
  // Markets that call everything alike and ask for the same names have one list.
  const made: Made[] = [];
  return (market, allergens) => {
    const names = NAMES[market];
    const own = named.has(market) ? market : null;
    let list = made.find((one) => asksSame(one, names, own, allergens));
    if (!list) {
      const items = listOf(market, allergens);
      list = { names, own, allergens, items, text: items.map(({ name }) => name).join(', ') };
      made.push(list);
    }
    return { market, school, items: list.items, text: list.text };
  };
}
