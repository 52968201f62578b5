/** What each bar of a maker's spreadsheet holds, by how it is laid out. Pure. */
import { folded } from '../folded';
import { addAbove, inTitle, saidAbove, type SaidAbove } from './above';
import type { Stage } from '../formula/types';
import type { DecimalMark } from '../quantities/number';
import { readCell, unitIn, unitsAsked, type SheetUnit } from './amounts';
import {
  amountAt,
  cellAt,
  filled,
  HEADS,
  isAlone,
  isNumeric,
  parted,
  stageIn,
  UNIT_AT_END,
  unitOfHead,
  type Layout,
  type SheetBar,
  type SheetColumns,
  type SheetFault,
  type SheetLine,
} from './cells';
import { fileMark, settleMark } from './marks';
import { amountOfBatch } from './of-batch';
import { isInParts, shareParts } from './parts';
import { batchesOf, LONGEST_NOTE, withoutRepeats } from './planned';
import { roleOf } from './recipe';
import { barName, isBeside, isFatName, isSection, isTotal, isWholeFats } from './words';

/** A bar by its name, where that stands, and what is said of it there. */
type Named = Pick<SheetBar, 'name' | 'row' | 'column'> & { says?: readonly SaidAbove[] };

/** Whether a cell is one word that heads a column. */
const isOneHead = (cell: string) =>
  /^\p{L}+$/u.test(cell.trim()) &&
  [HEADS.amount, HEADS.unit, HEADS.note, HEADS.what].some((head) => head.test(folded(cell)));

/** What a sheet of one bar calls it above its rows, and where. */
export function titleOf(rows: readonly (readonly string[])[], head: number): Named | null {
  for (const [at, row] of rows.slice(0, Math.max(0, head)).entries()) {
    const [first = '', second = ''] = row.filter((cell) => cell.trim() !== '');
    const named = (name: string, cell: string, says: readonly SaidAbove[] = []) => {
      return { name, row: at + 1, column: row.lastIndexOf(cell), says };
    };
    // Heads may take two lines: "Amount" over "(g)".
    if (isAlone(row) && !isSection(first) && !isOneHead(first)) {
      const { name, says } = inTitle(first, at);
      // What says nothing but figures of the batch is no title.
      if (name !== '') return named(name, first, says);
    }
    if (second !== '' && !isNumeric(second) && HEADS.bar.test(folded(first)))
      return named(second.trim(), second);
  }
  return null;
}

interface Reader {
  bars: SheetBar[];
  faults: SheetFault[];
  /** The file's decimal mark; null where nothing shows it. */
  mark: DecimalMark;
  /** What is said of each bar beside its rows. */
  says: Map<SheetBar, readonly SaidAbove[]>;
  /** Notes of the rows of each bar. */
  notes: Map<SheetBar, { name: string; note: string }[]>;
}

/** What a row says how much of; an error in words where it says no amount. */
function amountIn(name: string, cell: string, unit: SheetUnit | null, mark: DecimalMark) {
  const ofBatch = amountOfBatch(name, cell, unit);
  if (ofBatch !== undefined) return ofBatch;
  const settled = settleMark(cell, unit, mark);
  return typeof settled === 'string' ? readCell(settled, unit) : settled;
}

function add(
  { bars, faults, mark, says, notes }: Reader,
  { says: said = [], ...bar }: Named,
  { row, column }: Pick<SheetLine, 'row' | 'column'>,
  name: string,
  cell: string,
  unit: SheetUnit | null,
  note = '',
): SheetBar | null {
  if (name === '' || (isTotal(name) && !isWholeFats(name))) return null;
  const amount = amountIn(name, cell, unit, mark);
  if (amount === null) return null;
  if ('error' in amount) {
    faults.push({ row, message: amount.error });
    return null;
  }
  let known = bars.find((one) => one.name === bar.name);
  if (!known) {
    bars.push((known = { ...bar, note: '', lines: [] }));
    says.set(known, said);
    notes.set(known, []);
  }
  if (note !== '') notes.get(known)!.push({ name, note });
  known.lines.push({ row, name, amount, said: cell, column });
  return known;
}

/** "Name: Bay Rum" in two cells. */
export const isNaming = (name: string, said: string) =>
  HEADS.bar.test(folded(name)) && said !== '' && !isNumeric(said);

const SIDE_BY_SIDE = 'Bars stand side by side from this row on. Put them one under the other, and send that.';

const secondBar = (name: string) =>
  `The heads come again here, and ${name} stands above and below: this is a second bar. Point at the name of each, or leave the rows of one out.`;

/** Whether a row goes on beside its amount with another name and amount. */
function standBeside(row: readonly string[], { amount }: SheetColumns): boolean {
  const rest = row.slice((amount ?? 0) + 1);
  return rest.some((cell, at) => at > 0 && isNumeric(cell) && /\p{L}{3}/u.test(rest[at - 1]!));
}

/** A bar by a cell alone in its row; one that says nothing but figures of the batch is its name all the same. */
function titled(cell: string, at: number): Named {
  const { name, says } = inTitle(cell, at);
  return name === '' ? { name: barName(cell), row: at + 1 } : { name, says, row: at + 1 };
}

/** The bar that a row names, by its own cells alone; null where it names none. */
function namedIn(
  row: readonly string[],
  at: number,
  { kind, head, columns, named = [] }: Layout,
): Named | null {
  const pointed = named.find((one) => one.row === at);
  if (pointed) {
    const { column } = pointed;
    return cellAt(row, column) === '' ? null : { name: barName(cellAt(row, column)), row: at + 1, column };
  }
  if (kind !== 'blocks') return null;
  const [name, amount] = [cellAt(row, columns.what), cellAt(row, columns.amount)];
  if (amount === '' && isAlone(row)) return name === '' || isSection(name) ? null : titled(name, at);
  return head < 0 && isNaming(name, amount) ? { name: amount, row: at + 1 } : null;
}

/** What is told once of a sheet read down: bars beside each other, a second bar under heads that come again. */
function watching({ kind, head, columns }: Layout, { bars, faults }: Reader) {
  let isTold = head >= 0;
  let again: { row: number; above: ReadonlySet<string> } | null = null;
  return {
    row: (row: readonly string[], number: number, name: string) => {
      if (!isTold && standBeside(row, columns)) {
        faults.push({ row: number, message: SIDE_BY_SIDE });
        isTold = true;
      }
      if (kind !== 'single' || !again?.above.has(folded(name))) return;
      faults.push({ row: again.row, message: secondBar(name) });
      again = null;
    },
    heads: (row: number) => {
      const above = bars.flatMap(({ lines }) => lines.map((line) => folded(line.name)));
      again = { row, above: new Set(above) };
    },
  };
}

function readDown(
  rows: readonly (readonly string[])[],
  layout: Layout,
  into: Reader,
  fallback: string,
): void {
  const { kind, head, columns, unit, named: pointed = [], unnamed = [] } = layout;
  const batches = kind === 'list' ? batchesOf(rows[head] ?? [], columns.bar, rows.slice(head + 1)) : null;
  const watch = watching(layout, into);
  // What stands right under the heads, or where rows were said to name no bar, is the sheet's own.
  const isSheets = (kind === 'blocks' && head >= 0) || unnamed.length > 0;
  // Without a name of its own it is called as the sheet is, and no cell names it.
  const called = kind === 'single' || isSheets ? fallback : '';
  const title = kind === 'single' ? titleOf(rows, head) : null;
  let bar: Named = title ?? { name: called, row: 1, column: null };
  if (kind === 'single') bar = { ...bar, says: [...(bar.says ?? []), ...saidAbove(rows, head)] };
  /** When what stands under the last heading of a part goes in. */
  let part: Stage | undefined;
  rows.forEach((row, at) => {
    // In blocks the first bar may be named above the first heads.
    const isBefore = at < head && kind !== 'blocks' && !pointed.some((one) => one.row === at);
    if (at === head || isBefore || filled(row) === 0 || unnamed.includes(at)) return;
    const here = namedIn(row, at, layout);
    if (here) {
      [bar, part] = [here, undefined];
      return;
    }
    const [name, note] = [cellAt(row, columns.what), cellAt(row, columns.note)];
    const amount = amountAt(row, rows[head] ?? [], columns, unit);
    // Fats end the part of the lye, whether a heading says so or not.
    if ((part === 'lye' || part === 'liquid') && isFatName(name)) part = undefined;
    const named = kind === 'list' ? cellAt(row, columns.bar) : '';
    const batch = batches?.[at - head - 1] ?? '';
    if (named !== '') bar = { name: batch === '' ? named : `${named} ${batch}`, row: at + 1 };
    if (amount === '' && isAlone(row) && isSection(name)) {
      part = stageIn(name);
      return;
    }
    // The heads may come again above each bar.
    if (HEADS.what.test(folded(name)) && HEADS.amount.test(folded(amount))) {
      watch.heads(at + 1);
      return;
    }
    if (amount !== '') watch.row(row, at + 1, name);
    if (bar.name === '') {
      const message = `“${name}” stands under no bar. Say which column names the bar.`;
      if (name !== '' && amount !== '') into.faults.push({ row: at + 1, message });
      return;
    }
    const own = unitIn(cellAt(row, columns.unit));
    const column = head < 0 && !isNumeric(rows[at]![columns.amount ?? 0] ?? '') ? null : columns.amount;
    const known = add(into, bar, { row: at + 1, column }, name, amount, own ?? unit, note);
    if (!known) return;
    if (batch !== '' && named !== '') known.of = named;
    const stage = stageIn(cellAt(row, columns.stage ?? null)) ?? stageIn(note) ?? part;
    if (stage) known.lines.at(-1)!.stage = stage;
    const portion = cellAt(row, columns.portion ?? null);
    if (portion !== '') known.lines.at(-1)!.portion = portion;
    const was = cellAt(row, columns.weighed ?? null);
    if (was !== '') (known.weighed ??= []).push({ row: at + 1, batch, name, was, planned: amount });
  });
}

function readAcross(
  rows: readonly (readonly string[])[],
  { kind, head, unit, columns }: Layout,
  into: Reader,
): void {
  const heads = rows[head] ?? [];
  const sideAt = columns.bar ?? columns.what ?? 0;
  // A column or a row of words alone says something else than amounts.
  const says = heads.map(
    (cell, column) =>
      !(kind === 'rows' && isBeside(cell)) &&
      rows.slice(head + 1).some((row) => isNumeric(row[column] ?? '')),
  );
  rows.forEach((row, at) => {
    if (at <= head || !row.slice(1).some(isNumeric)) return;
    heads.forEach((cell, column) => {
      if (column === sideAt || cell.trim() === '' || !says[column]) return;
      const [side, top] = [cellAt(row, sideAt), cell.trim()];
      if (side === '' || (kind === 'columns' && isBeside(side))) return;
      const isRows = kind === 'rows';
      const own = unitOfHead(isRows ? top : side);
      const bare = (text: string) => (own ? text.replace(UNIT_AT_END, '') : text);
      const ofBar = isRows ? null : unitOfHead(top);
      const called = ofBar === null ? top : top.replace(UNIT_AT_END, '') || top;
      const bar = isRows ? { name: side, row: at + 1 } : { name: called, row: head + 1 };
      if (isTotal(bar.name)) return;
      const said = (row[column] ?? '').trim();
      add(into, bar, { row: at + 1, column }, bare(isRows ? top : side), said, own ?? ofBar ?? unit);
    });
  });
}

/** A note that all rows repeat is the bar's; others stand behind the names of their rows. */
function noteOf(notes: readonly { name: string; note: string }[]): string {
  const said = new Set(notes.map(({ note }) => note));
  if (said.size <= 1) return [...said].join('');
  const all = notes.map(({ name, note }) => `${name}: ${note}`);
  const whole = all.join('; ');
  if (whole.length <= LONGEST_NOTE) return whole;
  const more = '; more notes stand in the sheet';
  const cut = whole.slice(0, LONGEST_NOTE - more.length);
  return cut.slice(0, Math.max(0, cut.lastIndexOf('; '))) + more;
}

/** A bar with its note, and what is said of it beside its rows. */
function finish(bar: SheetBar, { faults, mark, says, notes }: Reader): void {
  bar.note = noteOf(notes.get(bar)!);
  const read = ({ row: at, column, name, said }: SaidAbove) => {
    const row = at + 1;
    // Bare numbers of a superfat or of the liquid are percents; a sum of the fats says its unit.
    const unit = ['superfat', 'liquid'].includes(roleOf({ name })) ? '%' : null;
    const amount = amountIn(name, said, unit, mark);
    if (amount === null) return null;
    // Words beside a label above the heads are none of its figures.
    if ('error' in amount) return isNumeric(said) ? { row, message: amount.error } : null;
    return { row, name, amount, said, column };
  };
  faults.push(...addAbove(bar.lines, says.get(bar)!, read));
}

/**
 * Every bar of a sheet in a layout, and what could not be read, by row. `fallback` names a bar that stands alone.
 *
 * @example
 * readSheet(rows, guessLayout(rows)).bars; // bars by name, their rows with material and amount
 */
export function readSheet(
  rows: readonly (readonly string[])[],
  layout: Layout,
  fallback = 'A bar',
): Pick<Reader, 'bars' | 'faults'> {
  const into: Reader = { bars: [], faults: [], mark: fileMark(rows), says: new Map(), notes: new Map() };
  if (layout.kind === 'rows' || layout.kind === 'columns') readAcross(rows, layout, into);
  else readDown(layout.head < 0 ? parted(rows) : rows, layout, into, fallback);
  const isParts = isInParts(cellAt(rows[layout.head] ?? [], layout.columns.amount));
  for (const bar of into.bars) {
    if (isParts) shareParts(bar.lines);
    finish(bar, into);
  }
  return { bars: withoutRepeats(into.bars), faults: unitsAsked(into.faults) };
}
