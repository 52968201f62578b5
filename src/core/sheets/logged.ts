/** Batches of a log: what a sheet says was weighed of its bar, by batch, with the day where one stands. Pure. */
import { folded } from '../folded';
import type { AccountRow } from './account';
import { gramsOf, readCell } from './amounts';
import { cellAt, unitOfHead, type CellAt, type Layout, type SheetBar } from './cells';
import type { DayOrder } from '../paperwork/dates';
import { dayOrderOf, isOrderOpen, readDay, withoutTime } from './days';
import { isLyeSolution } from './lye-solution';
import { fileMark, settleMark } from './marks';

/** The line of the alkali, as a run sheet calls it. */
const ALKALI = 'alkali';

/** What was weighed of a line of the formula, or of the `alkali`, grams; `readabilityG` is the last place that is said. */
export interface LoggedWeighing {
  line: string;
  massG: number;
  readabilityG: number;
}

export interface LoggedBatch {
  /** As the sheet calls it; empty where it does not. */
  code: string;
  /** When it was made, YYYY-MM-DD; null where the sheet does not say it, or not one way. */
  day: string | null;
  /** Bars it was cut into; null where the sheet does not say it. */
  bars: number | null;
  weighed: LoggedWeighing[];
  /** What is not taken, in words. */
  left: string[];
  /** Where the sheet says its code, its day and its bars. */
  cells: CellAt[];
}

/** What a cell says, and where it stands. */
type Said = { said: string; at: CellAt } | null;

const CODE = /^(?:batch|charge|partie|partij|lote|lotto|lot)(?: (?:no|nr|code|number|id))?[.:]*$/;
const DAY =
  /^(?:date|day|made(?: on)?|poured(?: on)?|datum|tag|gegossen(?: am)?|jour|coule le|fecha|dia|data|gemaakt(?: op)?)[.:]*$/;

const BARS =
  /^(?:bars|yield|no of bars|number of bars|bars cut|stuck|anzahl|seifen|pieces|nombre de (?:pains|savons)|savons|piezas|jabones|stuks)[.:]*$/;

type Rows = readonly (readonly string[])[];

/** What stands above the heads under a name: in the cell beside it, or behind it in its own. */
function saidAbove(rows: Rows, head: number, name: RegExp): Said {
  for (const [row, cells] of rows.slice(0, Math.max(0, head)).entries()) {
    const full = cells.flatMap((cell, column) => (cell.trim() === '' ? [] : [{ said: cell.trim(), column }]));
    for (const [at, { said: cell, column }] of full.entries()) {
      const beside = full[at + 1];
      if (name.test(folded(cell)) && beside) return { said: beside.said, at: { row, column: beside.column } };
      const [, label = '', said = ''] = /^([^:]+):\s*(.+)$/.exec(cell) ?? [];
      if (said !== '' && name.test(folded(label))) return { said, at: { row, column } };
    }
  }
  return null;
}

/** What a batch's own rows say in a column of that name, the first of them that does, else what stands above the heads. */
function saidOfBatch(rows: Rows, { head }: Layout, ofBatch: readonly number[], name: RegExp): Said {
  const column = (rows[head] ?? []).findIndex((cell) => name.test(folded(cell)));
  if (column >= 0)
    for (const row of ofBatch) {
      const said = cellAt(rows[row - 1]!, column);
      if (said !== '') return { said, at: { row: row - 1, column } };
    }
  return saidAbove(rows, head, name);
}

/** The day that a cell says; null where none, or not one way. */
function dayOf(cell: string, order: DayOrder | null): Pick<LoggedBatch, 'day' | 'left'> {
  const said = withoutTime(cell);
  if (said === '') return { day: null, left: [] };
  if (order === null && isOrderOpen([said]))
    return { day: null, left: [`“${said}” reads two ways: say the day.`] };
  const day = readDay(said, order ?? 'dayFirst', 'first');
  return typeof day === 'string' ? { day, left: [] } : { day: null, left: [`“${said}” is no day.`] };
}

/** The line that a row is of; null where it says no ingredient. */
function lineOf({ role, line }: AccountRow): string | null {
  if (role === 'lye') return ALKALI;
  return line?.id ?? null;
}

/** Whether a head says something of batches: their code, their day, their bars. */
export const isOfBatches = (head: string) => [CODE, DAY, BARS].some((name) => name.test(folded(head)));

/** Places behind the decimal mark of the first figure of a cell. */
const placesOf = (cell: string) => /\d[.,](\d{1,4})(?!\d)/.exec(cell)?.[1]!.length ?? 0;

type Entry = NonNullable<SheetBar['weighed']>[number];

/** The masses of one batch, line by line. `was` is read as its head, or its plan, says the unit. */
function weighedIn(
  entries: readonly Entry[],
  account: readonly AccountRow[],
  grams: (was: string, planned: AccountRow) => Omit<LoggedWeighing, 'line'> | null,
): Pick<LoggedBatch, 'weighed' | 'left'> {
  const open = account.filter((row) => lineOf(row) !== null);
  const weighed: LoggedBatch['weighed'] = [];
  const left: string[] = [];
  for (const { name, was } of entries) {
    const at = open.findIndex((row) => folded(row.name) === folded(name));
    if (at < 0) {
      if (isLyeSolution(name) && was.trim() !== '')
        left.push(`${name}: lye and water were weighed together. Write them down apart at the batch.`);
      continue;
    }
    const [planned] = open.splice(at, 1);
    const said = grams(was, planned!);
    if (said === null) left.push(`${name}: “${was}” is no mass.`);
    else weighed.push({ line: lineOf(planned!)!, ...said });
  }
  left.push(...open.map(({ name }) => `${name}: nothing is weighed.`));
  return { weighed, left };
}

/**
 * Every batch that a sheet logs of a bar, in its order; none where it says only what was planned.
 *
 * @example
 * loggedBatches(rows, layout, bar, accountOf(bar, formula)); // [{ code: 'T-014', day: '2026-11-03', weighed, left: [] }]
 */
export function loggedBatches(
  rows: Rows,
  layout: Layout,
  { weighed: entries = [] }: Pick<SheetBar, 'weighed'>,
  account: readonly AccountRow[],
): LoggedBatch[] {
  const { head, columns, unit } = layout;
  const mark = fileMark(rows);
  const dayColumn = (rows[head] ?? []).findIndex((cell) => DAY.test(folded(cell)));
  const order = dayColumn < 0 ? null : dayOrderOf(rows.slice(head + 1).map((row) => row[dayColumn] ?? ''));
  const ofHead = unitOfHead(rows[head]?.[columns.weighed ?? -1] ?? '');
  const grams = (was: string, { line }: AccountRow): Omit<LoggedWeighing, 'line'> | null => {
    const bare = ofHead ?? unit ?? line?.amount.unit ?? 'g';
    const settled = settleMark(was, bare, mark);
    const amount = typeof settled === 'string' ? readCell(settled, bare) : settled;
    if (amount === null || 'error' in amount) return null;
    const massG = gramsOf(amount);
    const readabilityG = gramsOf({ value: 10 ** -placesOf(was), unit: amount.unit });
    return massG === null || massG <= 0 || readabilityG === null ? null : { massG, readabilityG };
  };
  return [...new Set(entries.map(({ batch }) => batch))].map((batch) => {
    const own = entries.filter((one) => one.batch === batch);
    const said = (name: RegExp) =>
      saidOfBatch(
        rows,
        layout,
        own.map(({ row }) => row),
        name,
      );
    const [code, dayCell, barsCell] = [
      batch === '' ? saidAbove(rows, head, CODE) : null,
      said(DAY),
      said(BARS),
    ];
    const { day, left: ofDay } = dayOf(dayCell?.said ?? '', order);
    const bars = /^\d{1,4}$/.exec(barsCell?.said ?? '');
    const { weighed, left } = weighedIn(own, account, grams);
    return {
      code: code?.said ?? batch,
      day,
      bars: bars ? Number(bars[0]) : null,
      weighed,
      left: [...left, ...ofDay],
      cells: [code, day === null ? null : dayCell, bars ? barsCell : null].flatMap((one) =>
        one ? [one.at] : [],
      ),
    };
  });
}
