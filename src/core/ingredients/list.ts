/** The ingredient list of a market: parts merged under the market's names, allergens added, in order. */
import type { AssessedDeclarable, IngredientItem, IngredientList, School } from '../formula/answer';
import type { Market } from '../formula/types';
import type { Part } from './parts';

/** What water is called on a list (assessment page, step 13). */
const WATER_NAMES: Record<Market, string> = {
  EU: 'Aqua',
  UK: 'Aqua',
  US: 'Water',
  CA: 'Aqua/Water/Eau',
  AU: 'Water',
};

/** What the scent is called where its parts are one entry. */
const SCENT_NAMES: Record<Market, string> = {
  EU: 'Parfum',
  UK: 'Parfum',
  US: 'Fragrance',
  CA: 'Parfum',
  AU: 'Fragrance',
};

export interface ListOptions {
  market: Market;
  school: School;
  /** `named`: only fragrance oils become one scent entry; essential oils stand under their own names. */
  scentNaming: 'parfum' | 'named';
  /** The mass that percents are of: the pour as added, the cured bar as formed. Grams. */
  wholeG: number;
  /** Constituents to declare in this market, with their typical mass in the batch. */
  allergens: readonly { declarable: AssessedDeclarable; massG: number }[];
}

function entryName(part: Part, { market, scentNaming }: ListOptions): string {
  if (part.role === 'water') return WATER_NAMES[market];
  const merges = part.role === 'scent' && (scentNaming === 'parfum' || part.kind === 'fragrance');
  return merges ? SCENT_NAMES[market] : (part.names?.[market] ?? part.name);
}

interface Merged {
  item: IngredientItem;
  /** Mass of the heaviest part so far; its role stands for the entry. */
  heaviestG: number;
}

function merge(parts: readonly Part[], options: ListOptions): Map<string, Merged> {
  const entries = new Map<string, Merged>();
  for (const part of parts) {
    if (!(part.massG > 0)) continue;
    const name = entryName(part, options);
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
  return entries;
}

function compareItems(a: IngredientItem, b: IngredientItem): number {
  const colour = Number(a.role === 'colourant') - Number(b.role === 'colourant');
  if (colour !== 0) return colour;
  if (a.massG !== b.massG) return b.massG - a.massG;
  return a.name < b.name ? -1 : Number(a.name > b.name);
}

/**
 * The list of one market and school. Declared allergens are entries of their own and are not taken off the
 * scent; one whose name already stands on the list is not written twice. Colourants come last.
 */
export function ingredientList(parts: readonly Part[], options: ListOptions): IngredientList {
  const entries = merge(parts, options);
  const items = Array.from(entries.values(), ({ item }) => item);
  for (const { declarable, massG } of options.allergens) {
    if (!entries.has(declarable.name)) items.push({ name: declarable.name, massG, pct: 0, role: 'allergen' });
  }
  const perGram = options.wholeG > 0 ? 100 / options.wholeG : 0;
  for (const item of items) item.pct = item.massG * perGram;
  items.sort(compareItems);
  const text = items.map((item) => item.name).join(', ');
  return { market: options.market, school: options.school, items, text };
}
