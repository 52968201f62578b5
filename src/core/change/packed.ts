/**
 * Effects in little room: what is named and listed is the same text for a bar, its versions and its batches, before a
 * change and after it, so that each text is kept once and rows point to it.
 */
import type { Effect, Stand } from './types';

/** Verdict, headroom, limit, and the places of what is declared and listed among the texts. */
type PackedStand = [
  verdict: Stand['verdict'],
  headroomPct: number | null,
  boundBy: string | null,
  declares: number,
  listAdded: number,
  listFormed: number,
];

type PackedEffect = Omit<Effect, 'before' | 'after'> & {
  before: PackedStand | null;
  after: PackedStand | null;
};

export interface PackedEffects {
  texts: string[];
  /** What is declared, each set once, as places among the texts. */
  declares: number[][];
  rows: PackedEffect[];
}

/** Gives everything its place in the order it comes, each once. */
function placer<T>(keyOf: (one: T) => string) {
  const places = new Map<string, number>();
  const all: T[] = [];
  return {
    all,
    placeOf: (one: T): number => {
      const key = keyOf(one);
      const known = places.get(key);
      if (known !== undefined) return known;
      places.set(key, all.length);
      all.push(one);
      return all.length - 1;
    },
  };
}

/**
 * Packs effects; `unpackEffects` gives back what was packed.
 *
 * @example
 * packEffects(effects).texts.length; // 240, of 66,000 rows
 */
export function packEffects(effects: readonly Effect[]): PackedEffects {
  const texts = placer((text: string) => text);
  const declares = placer((places: number[]) => places.join(' '));
  const packed = (stand: Stand | null): PackedStand | null =>
    stand && [
      stand.verdict,
      stand.headroomPct,
      stand.boundBy,
      declares.placeOf(stand.declares.map(texts.placeOf)),
      texts.placeOf(stand.listAdded),
      texts.placeOf(stand.listFormed),
    ];
  const rows = effects.map((effect) => ({
    ...effect,
    before: packed(effect.before),
    after: packed(effect.after),
  }));
  return { texts: texts.all, declares: declares.all, rows };
}

/** Texts and sets that several packs share, so that each stays in memory once. */
export interface Shared {
  texts: Map<string, string>;
  declares: Map<string, string[]>;
}

/** Nothing shared yet. */
export const nothingShared = (): Shared => ({ texts: new Map(), declares: new Map() });

function once<T>(known: Map<string, T>, key: string, one: T): T {
  const before = known.get(key);
  if (before !== undefined) return before;
  known.set(key, one);
  return one;
}

/** Gives back what was packed; what is the same text stays one in memory, also over several packs that share. */
export function unpackEffects({ texts, declares, rows }: PackedEffects, shared = nothingShared()): Effect[] {
  const said = texts.map((text) => once(shared.texts, text, text));
  const sets = declares.map((places) => {
    const ids = places.map((place) => said[place]!);
    return once(shared.declares, ids.join(' '), ids);
  });
  const stand = (packed: PackedStand | null): Stand | null => {
    if (!packed) return null;
    const [verdict, headroomPct, boundBy, declared, added, formed] = packed;
    return {
      ...{ verdict, headroomPct, boundBy },
      ...{ declares: sets[declared]!, listAdded: said[added]!, listFormed: said[formed]! },
    };
  };
  return rows.map((row) => ({ ...row, before: stand(row.before), after: stand(row.after) }));
}
