/**
 * The one index from whatever a material is called to what the rules speak of: ingredient names in any market's
 * naming, trivial names, CAS, EC and colour index numbers. Whatever comes in passes here: own materials, imports,
 * mixes, requests, rows of papers.
 */
import { isColourPart } from '../core/formula/colours';
import type { Constituent, Material } from '../core/formula/types';
import { folded } from '../core/folded';
import { rulebook } from '../rulebook';
import { everyConstituent } from './constituents';

const words = (text: string) =>
  folded(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/**
 * The ways in which a name is looked for: as it stands, and without what stands in brackets.
 *
 * @example nameKeys('Citrus Limon (Lemon) Peel Oil') // ['citrus limon lemon peel oil', 'citrus limon peel oil']
 */
export function nameKeys(name: string): string[] {
  const keys = [words(name), words(name.replace(/\([^)]*\)/g, ' '))];
  return [...new Set(keys)].filter((key) => key !== '');
}

/** "C.I. 77891", "ci77891" and "CI 77891" are one number. */
export function colourKey(name: string): string {
  const number = /^c ?i ?(\d{5})(?: (\d))?$/.exec(words(name));
  return number ? `ci ${number[1]}${number[2] ? ` ${number[2]}` : ''}` : words(name);
}

function build() {
  const ids = new Map<string, Set<string>>();
  const lead = (key: string, id: string) => ids.set(key, (ids.get(key) ?? new Set()).add(id));
  for (const { id, name, names, cas, ec } of everyConstituent()) {
    for (const one of [name, ...names]) for (const key of nameKeys(one)) lead(key, id);
    for (const number of [...cas, ...ec]) lead(words(number), id);
  }
  const colours = new Map<string, string>();
  for (const { name, english, alsoNamed = [] } of rulebook().colours) {
    for (const one of [name, ...alsoNamed]) colours.set(colourKey(one), name);
    // A name that several numbers share leads nowhere by itself.
    if (english) colours.set(colourKey(english), colours.has(colourKey(english)) ? english : name);
  }
  return { ids, colours };
}

const INDEX = build();

/** Ids of the constituents that a name or number stands for; of some there are two. */
export const constituentsNamed = (name: string): string[] => [
  ...new Set(nameKeys(name).flatMap((key) => [...(INDEX.ids.get(key) ?? [])])),
];

/** The name under which the rulebook keeps a colour; the name itself where it keeps none. */
export const colourNamed = (name: string): string => INDEX.colours.get(colourKey(name)) ?? name;

/** Oils and extracts that lists of allergens name. */
const NATURALS: ReadonlySet<string> = new Set(
  rulebook()
    .allergens.filter(({ kind }) => kind === 'natural')
    .map(({ id }) => id),
);

/** Names that say nothing of what is in a scent. */
const GENERIC = new Set(['parfum', 'fragrance', 'aroma', 'perfume', 'parfum fragrance']);

/** What its names say a material holds, percent by constituent: of its parts, else of its numbers, else of its name. */
function namedShares({ name, kind, inci, numbers }: Material): Map<string, number> {
  const shares = new Map<string, number>();
  const add = (id: string, sharePct: number) =>
    shares.set(id, Math.min(100, (shares.get(id) ?? 0) + sharePct));
  const parts = (inci ?? []).filter((part) => !GENERIC.has(words(part.name)));
  for (const part of parts) for (const id of constituentsNamed(part.name)) add(id, part.sharePct);
  if (shares.size > 0) return shares;
  const numbered = (numbers ?? []).flatMap(constituentsNamed);
  // What is known by an ingredient name that the rules do not speak of is not what its maker calls it.
  const called = parts.length === 0 ? constituentsNamed(name) : [];
  // A fragrance called like an oil is made to smell of it.
  const own = kind === 'fragrance' ? called.filter((id) => !NATURALS.has(id)) : called;
  const ids = numbered.length > 0 ? numbered : own;
  for (const id of ids) add(id, 100);
  return shares;
}

/**
 * A material with the constituents that its own names say, beside those that stand on file, and its colours under
 * the names of the rulebook. What is on file of a constituent stays as it is. Masses and shares are not touched.
 */
export function withReached<M extends Material>(material: M): M {
  const known = new Set((material.constituents ?? []).map(({ id }) => id));
  const named = [...namedShares(material)].filter(([id]) => !known.has(id));
  const added = named.map(([id, share]): Constituent => ({
    ...{ id, lowPct: share, typicalPct: share, highPct: share },
  }));
  const isColoured = (material.inci ?? []).some((part) => isColourPart(material, part));
  if (added.length === 0 && !isColoured) return material;
  return {
    ...material,
    ...(added.length > 0 ? { constituents: [...(material.constituents ?? []), ...added] } : {}),
    ...(isColoured
      ? {
          inci: material.inci!.map((part) =>
            isColourPart(material, part) ? { ...part, colour: colourNamed(part.name) } : part,
          ),
        }
      : {}),
  };
}
