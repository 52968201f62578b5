/** Reading help for an ingredient list: why an entry is there, and why at this place. */
import type { Assessment, IngredientItem, IngredientList } from '../formula/answer';
import type { Material } from '../formula/types';

/** Entries below this may stand in any order, percent (assessment page, step 13). */
const FREE_ORDER_PCT = 1;

export interface ReadEntry {
  name: string;
  pct: number;
  why: string;
  place: string;
}

function bringers(item: IngredientItem, materials: readonly Material[]): string[] {
  const plain = (name: string) => name.toLowerCase();
  return materials
    .filter(({ inci, saponification, fatSaponification, formedInci }) => {
      const made = [saponification?.formedInci, fatSaponification?.formedInci, formedInci];
      const names = [
        ...(inci ?? []).flatMap((part) => [part.name, ...Object.values(part.names ?? {})]),
        ...made.flatMap((name) => name ?? []),
      ];
      return names.some((name) => plain(name) === plain(item.name));
    })
    .map(({ name }) => name);
}

function why(
  item: IngredientItem,
  list: IngredientList,
  assessment: Assessment,
  materials: readonly Material[],
): string {
  if (item.role === 'allergen') {
    const row = assessment.declarables.find(
      ({ market, name }) => market === list.market && name === item.name,
    );
    return row
      ? `a scent allergen, at most ${Number(row.highPct.toPrecision(3))} %; named above ${row.thresholdPct} %`
      : 'a scent allergen';
  }
  if (item.role === 'scent') {
    const scents = materials.filter(({ kind }) => /fragrance|essentialOil|isolate/.test(kind));
    return `the scent, one word for ${scents.map(({ name }) => name).join(', ')}`;
  }
  if (item.role === 'alkali') return 'the lye, as it was weighed';
  if (item.role === 'glycerin') return 'set free as the fats turn to soap';
  if (item.role === 'water')
    return list.school === 'formed' ? 'the water left after the cure' : 'all water in it, merged';
  const from = bringers(item, materials);
  const made = item.role === 'soap' ? 'the soap made of' : 'from';
  return from.length > 0 ? `${made} ${from.join(', ')}` : made;
}

function place(item: IngredientItem): string {
  if (item.role === 'colourant') return 'colours come last';
  return item.pct >= FREE_ORDER_PCT ? 'by weight' : 'under 1 %: any order, here by weight';
}

/**
 * Every entry of a list with why it is there and why at its place.
 *
 * @example
 * readList(list, assessment, materials); // an entry each: its name, why it is there, why at this place
 */
export function readList(
  list: IngredientList,
  assessment: Assessment,
  materials: readonly Material[],
): ReadEntry[] {
  return list.items.map((item) => ({
    name: item.name,
    pct: item.pct,
    why: why(item, list, assessment, materials),
    place: place(item),
  }));
}
