/** What changed from one edition of the rulebook to another, row by row. */
import type { Rulebook } from './types';

export type RuleKind = 'limit' | 'advice' | 'allergenList' | 'allergen' | 'colour' | 'peroxides';

export interface RuleDifference {
  kind: RuleKind;
  id: string;
  change: 'added' | 'removed' | 'changed';
  /** Fields that read otherwise, where the row stands in both. */
  fields: string[];
}

type Row = object;
type Rows = ReadonlyMap<string, Row>;

const byId = (rows: readonly (Row & { id: string })[]): Rows => new Map(rows.map((row) => [row.id, row]));

const READERS: readonly (readonly [RuleKind, (book: Rulebook) => Rows])[] = [
  ['limit', ({ limits }) => byId(limits)],
  ['advice', ({ craft }) => byId(craft)],
  [
    'allergenList',
    ({ allergenLists }) => new Map(allergenLists.map((row) => [`${row.market} ${row.list}`, row])),
  ],
  ['allergen', ({ allergens }) => byId(allergens)],
  ['colour', ({ colours }) => new Map(colours.map((row) => [row.name, row]))],
  ['peroxides', ({ peroxides }) => byId(peroxides)],
];

/** When a row was read says nothing about what it says. */
const IGNORED = new Set(['asOf']);

function fieldsOf(from: Row, to: Row): string[] {
  const [a, b] = [from as Record<string, unknown>, to as Record<string, unknown>];
  const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])];
  return keys.filter((key) => !IGNORED.has(key) && JSON.stringify(a[key]) !== JSON.stringify(b[key]));
}

/**
 * Every row that was added, removed or changed on the way from one edition to another, in the order of the kinds.
 *
 * @example editionDifferences(rulebook('2026-11'), rulebook('2026-11b'))[0] // { kind: 'limit', id: 'uk-methyl-salicylate', … }
 */
export function editionDifferences(from: Rulebook, to: Rulebook): RuleDifference[] {
  return READERS.flatMap(([kind, read]) => {
    const [before, after] = [read(from), read(to)];
    const ids = [...new Set([...before.keys(), ...after.keys()])];
    return ids.flatMap((id): RuleDifference[] => {
      const [was, is] = [before.get(id), after.get(id)];
      if (!was) return [{ kind, id, change: 'added', fields: [] }];
      if (!is) return [{ kind, id, change: 'removed', fields: [] }];
      const fields = fieldsOf(was, is);
      return fields.length > 0 ? [{ kind, id, change: 'changed', fields }] : [];
    });
  });
}
