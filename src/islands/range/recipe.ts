/** A recipe typed as text on its way to a bar: what it reads as, what is asked, the formula it makes. */
import { isScent } from '../../core/formula/scents';
import type { Formula, Kind } from '../../core/formula/types';
import type { Habits } from '../../core/records/house';
import type { Match } from '../../core/sheets/match';
import { formulaOf, roleOf, type Known } from '../../core/sheets/recipe';
import { readText } from '../../core/sheets/text';

const SUPERFAT_PCT = 5;
/** Grams of fats of a recipe in percent alone. */
const BATCH_G = 1000;

type ScentPercents = Habits['scentPercents'];

export interface Recipe {
  name: string;
  /** Names of materials in it. */
  names: string[];
  formula: Formula | null;
  notes: string[];
  /** What is not read or not known, in words; nothing is made while there is any. */
  faults: string[];
  /** Whether a bare percent of a scent has still to be said what of. */
  asksScents: boolean;
}

/** Materials chosen by hand, by the name in the text. */
export type Chosen = Readonly<Record<string, { id: string; title: string; kind: Kind }>>;

export interface Answers {
  matches: ReadonlyMap<string, Match | null>;
  chosen: Chosen;
  weights: Habits['weights'];
  scentPercents: ScentPercents;
}

/** What a text makes, as far as is known. */
export function recipeOf(text: string, { matches, chosen, weights, scentPercents }: Answers): Recipe {
  const { bar, bars, faults } = readText(text, weights);
  const find = (name: string): Known | null => chosen[name] ?? matches.get(name) ?? null;
  const isOpenScent = (name: string, unit: string) => {
    const known = find(name);
    return unit === '%' && known !== null && isScent(known);
  };
  const asksScents =
    scentPercents === null && bar.lines.some(({ name, amount }) => isOpenScent(name, amount.unit));
  const lines = bar.lines.map((line) =>
    scentPercents !== null && isOpenScent(line.name, line.amount.unit)
      ? { ...line, amount: { ...line.amount, unit: scentPercents } }
      : line,
  );
  const names = [...new Set(lines.filter((line) => roleOf(line) === 'material').map(({ name }) => name))];
  const taking = { find, percentOf: 'fats' as const, batchG: BATCH_G, superfatPct: SUPERFAT_PCT };
  const taken = formulaOf({ ...bar, lines }, taking);
  const unread = faults.map(({ message }) => message);
  return {
    name: bar.name,
    names,
    formula: taken.ok ? { ...taken.formula, ...(bars ? { bars } : {}) } : null,
    notes: taken.ok ? taken.notes : [],
    faults: [...unread, ...(taken.ok ? [] : taken.faults.map(({ message }) => message))],
    asksScents,
  };
}
