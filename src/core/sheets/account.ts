/**
 * A bar out of a sheet as it would be taken, line by line, beside what the cell said; and which cells of the sheet were
 * read as what. Pure.
 */
import type { Formula, Line } from '../formula/types';
import { unitRule } from '../quantities/units';
import { gramsOf } from './amounts';
import type { Layout, SheetBar, Role } from './cells';
import type { LoggedBatch } from './logged';
import { roleOf } from './recipe';

/** What stands in a sheet's row, and what is taken for it. */
export interface AccountRow {
  /** Row of the sheet, from 1. */
  row: number;
  /** Name and cell as they stand there. */
  name: string;
  said: string;
  role: Role;
  /** The formula's line; null where the row says lye, superfat, liquid or something of the batch. */
  line: Line | null;
  /** What the line weighs where that follows from it alone, grams; null where it hangs on the whole batch. */
  massG: number | null;
}

/** Grams of the fats that shares are of; null where they are no masses. */
function fatsOf({ fatsMassG, lines }: Formula): number | null {
  if (fatsMassG != null) return fatsMassG;
  const masses = lines.filter(({ stage }) => stage === 'fats').map(({ amount }) => gramsOf(amount));
  return masses.reduce<number | null>(
    (sum, massG) => (sum === null || massG === null ? null : sum + massG),
    0,
  );
}

function massOf({ amount }: Line, fatsG: number | null): number | null {
  const rule = unitRule(amount.unit);
  if (rule?.base !== 'fats') return gramsOf(amount);
  return fatsG === null ? null : amount.value * rule.factor * fatsG;
}

/** The rows of a bar beside its formula, in the sheet's order. */
export function accountOf(bar: SheetBar, formula: Formula): AccountRow[] {
  let taken = 0;
  const fatsG = fatsOf(formula);
  const isLyeSaid = bar.lines.some((one) => roleOf(one) === 'lye');
  return bar.lines.map((one) => {
    const { row, name, said } = one;
    const role = roleOf(one);
    // Taken apart it is the lye and a line of water; beside the lye it is their sum, and no line.
    const water = role === 'lyeSolution' && !isLyeSaid ? formula.lines[taken++] : undefined;
    if (water) {
      const [lyeG, waterG] = [formula.alkali.massG ?? null, massOf(water, fatsG)];
      const massG = lyeG === null || waterG === null ? null : lyeG + waterG;
      return { row, name, said, role, line: null, massG };
    }
    const line = role === 'material' ? (formula.lines[taken++] ?? null) : null;
    const massG = role === 'lye' ? (formula.alkali.massG ?? null) : line && massOf(line, fatsG);
    return { row, name, said, role, line, massG };
  });
}

/** What a cell of a sheet was read as; what is none of these was not taken. */
export type CellRole = 'head' | 'bar' | 'name' | 'amount' | 'note' | 'batch';

/** What the cells of a sheet were read as, by "row column", both from 0. */
export function cellRoles(
  { kind, head, columns }: Layout,
  bars: readonly SheetBar[],
  batches: readonly Pick<LoggedBatch, 'cells'>[] = [],
): ReadonlyMap<string, CellRole> {
  const roles = new Map<string, CellRole>();
  const set = (row: number, column: number | null, role: CellRole) => {
    if (column !== null) roles.set(`${row} ${column}`, role);
  };
  const isAcross = kind === 'rows' || kind === 'columns';
  const side = columns.bar ?? columns.what ?? 0;
  for (const bar of bars) {
    const { column: nameAt = kind === 'list' ? columns.bar : columns.what } = bar;
    if (!isAcross) set(bar.row - 1, nameAt, 'bar');
    for (const { row } of bar.weighed ?? []) {
      set(row - 1, columns.what, 'name');
      set(row - 1, columns.amount, 'amount');
      set(row - 1, columns.weighed ?? null, 'batch');
      if (kind === 'list') set(row - 1, columns.bar, 'bar');
    }
    for (const { row, column } of bar.lines) {
      // What a title says besides stands in the cell of the name.
      if (column === null && row === bar.row && nameAt !== null) continue;
      set(row - 1, column, 'amount');
      set(row - 1, isAcross ? side : columns.what, kind === 'rows' ? 'bar' : 'name');
      if (isAcross) set(head, column, kind === 'rows' ? 'name' : 'bar');
      else {
        set(row - 1, columns.unit, 'amount');
        set(row - 1, columns.larger ?? null, 'amount');
        set(row - 1, columns.note, 'note');
        if (kind === 'list') set(row - 1, columns.bar, 'bar');
      }
    }
  }
  if (head >= 0 && !isAcross)
    for (const column of Object.values<number | null | undefined>({ ...columns }))
      set(head, column ?? null, 'head');
  for (const { cells } of batches) for (const { row, column } of cells) set(row, column, 'batch');
  return roles;
}
