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
function merge(parts: readonly Part[], naming: Naming, perGram: number): IngredientItem[] {
  const entries = new Map<string, { item: IngredientItem; heaviestG: number }>();
  for (const part of parts) {
    if (!(part.massG > 0)) continue;
    const name = entryName(part, naming);
    const entry = entries.get(name);
    if (!entry) {
      const item = { name, massG: part.massG, pct: 0, role: part.role };
      entries.set(name, { item, heaviestG: part.massG });
      continue;
    }
    entry.item.massG += part.massG;
    if (part.massG > entry.heaviestG) {
      entry.heaviestG = part.massG;
      entry.item.role = part.role;
    }
  }
  const items = Array.from(entries.values(), ({ item }) => item);
  for (const item of items) item.pct = item.massG * perGram;
  return items.sort(byRank);
}

/** A constituent to declare, with its typical mass in the batch. */
export interface DeclaredAllergen {
  name: string;
  massG: number;
}

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
  const named = new Set(parts.flatMap(({ names }) => Object.keys(names ?? {})));
  const inMarket = (market: Market): IngredientItem[] => {
    const { water, scent } = NAMES[market];
    const collides = shared.some(({ name }) => name === water || name === scent);
    if (collides || named.has(market)) return merge(parts, { water, scent, market, scentNaming }, perGram);
    return shared.map(({ name, massG, pct, role }) => {
      const own = name === STAND_INS.water ? water : name === STAND_INS.scent ? scent : name;
      return { name: own, massG, pct, role };
    });
  };
  const listOf = (market: Market, allergens: readonly DeclaredAllergen[]): IngredientItem[] => {
    const items = inMarket(market);
    const listed = new Set(allergens.length > 0 ? items.map(({ name }) => name) : []);
    for (const { name, massG } of allergens) {
      if (!listed.has(name)) items.push({ name, massG, pct: massG * perGram, role: 'allergen' });
    }
    return items.sort(byRank);
  };
  // Markets that call everything alike and ask for the same names have one list.
  let last: { key: string; items: IngredientItem[]; text: string } | null = null;
  return (market, allergens) => {
    const { water, scent } = NAMES[market];
    const key = [
      water,
      scent,
      named.has(market) ? market : '',
      ...allergens.map(({ name, massG }) => `${name} ${massG}`),
    ].join('\n');
    if (last?.key === key)
      return { market, school, items: last.items.map((item) => ({ ...item })), text: last.text };
    const items = listOf(market, allergens);
    last = { key, items, text: items.map(({ name }) => name).join(', ') };
    return { market, school, items, text: last.text };
  };
}
