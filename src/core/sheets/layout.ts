/**
 * How a maker's spreadsheet is laid out, and what each bar in it holds. Five ways are known: a row an ingredient with
 * the bar beside it (`list`), the same with the bar named once above its rows (`blocks`), a row a bar with a column an
 * ingredient (`rows`), a column a bar with a row an ingredient (`columns`), and one bar alone (`single`). Pure.
 */
import type { DecimalMark } from '../quantities/number';
import { fileMark, settleMark } from './marks';
import { folded } from '../folded';
import { readCell, unitIn, unitsAsked, type SheetAmount, type SheetUnit } from './amounts';
import { batchesOf, plannedIn, withoutRepeats } from './planned';
import { barName, inOneCell, isBeside, isFatName, isSection } from './words';

export const SHEET_KINDS = ['list', 'blocks', 'rows', 'columns', 'single'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** Columns that say what; numbered from 0, null where the sheet has none. */
export interface SheetColumns {
  bar: number | null;
  what: number | null;
  amount: number | null;
  unit: number | null;
  note: number | null;
  /** What was weighed, beside what was planned. */
  weighed?: number | null;
}

export interface Layout {
  kind: SheetKind;
  /** The row of heads; -1 where there is none. */
  head: number;
  columns: SheetColumns;
  /** What bare numbers are in; null where it is still to be said. */
  unit: SheetUnit | null;
}

export interface SheetLine {
  /** Row of the sheet, from 1, as a spreadsheet numbers them. */
  row: number;
  name: string;
  amount: SheetAmount;
  /** The cell, or the piece of text, as it stands there. */
  said: string;
  /** Its column, from 0; null where name and amount stand in one cell. */
  column: number | null;
}

export interface SheetBar {
  row: number;
  name: string;
  note: string;
  lines: SheetLine[];
  /** The bar whose batch it is, where the sheet says batches. */
  of?: string;
  /** What its rows say was weighed, with the batch, as it stands there. */
  weighed?: { batch: string; name: string; was: string; planned: string }[];
}

export interface SheetFault {
  row: number;
  message: string;
}

const HEADS = {
  bar: /^(?:recipe|bar|soap|product|formula|batch|name of (?:bar|soap|recipe)|rezept|seife|produkt|savon|recette|sapone|ricetta|zeep|recept|jabon|receta|name|nombre|nom|title)s?(?: names?)?:?$/,
  what: /^(?:(?:raw )?ingredients?|raw materials?|trade names?|inci(?: names?)?|materials?|what|item|component|oils?|fats?|fette|ole|huiles?|zutat|rohstoff|ingredienti?|ingredientes?|matiere|ingredient name|grondstof|stoff|substance)\b/,
  amount:
    /^(?:amounts?|quantity|qty|weight|mass|menge|gewicht|quantite|poids|quantita|peso|cantidad|hoeveelheid|how much|value|gram(?:s|m|mes?|mi|os)?|ounces?|unzen|onces|kilos?|g|oz|gr|kg|lbs?|%|prozent|percent(?:age)?|pct|anteil)\b|^%/,
  unit: /^(?:unit|units|uom|einheit|unite|unita|unidad|eenheid|measure)\b/,
  note: /^(?:notes?|remarks?|comments?|bemerkung|description)\b/,
} as const;
const TOTAL = /^(?:total|sum|summe|gesamt\w*|totale|batch (?:size|weight)|check)\b/i;

const isNumeric = (cell: string) =>
  /^[~≈]?\s*[\d.,]+(?:\s*[/:]\s*\d+)?\s*(?:%|[a-z./ ]{1,16})?$/i.test(cell.trim()) && /\d/.test(cell);
const filled = (row: readonly string[]) => row.filter((cell) => cell.trim() !== '').length;

function headOf(rows: readonly (readonly string[])[]): { head: number; columns: SheetColumns } {
  const none: SheetColumns = { bar: null, what: null, amount: null, unit: null, note: null };
  let best = { head: -1, columns: none, score: 0 };
  rows.slice(0, 15).forEach((row, head) => {
    if (row.some(isNumeric)) return;
    const columns = { ...none };
    const both = plannedIn(row, rows.slice(head + 1));
    if (both) [columns.amount, columns.weighed] = [both.planned, both.weighed];
    for (const [at, cell] of row.entries())
      for (const key of ['what', 'unit', 'amount', 'note', 'bar'] as const)
        if (columns[key] === null && HEADS[key].test(folded(cell)) && !Object.values(columns).includes(at))
          columns[key] = at;
    const score =
      Object.values(columns).filter((one) => one != null).length + (columns.what !== null ? 1 : 0);
    if (score > best.score) best = { head, columns, score };
  });
  if (best.score < 2) return { head: -1, columns: none };
  return { head: best.head, columns: { ...best.columns, amount: fullest(rows, best.head, best.columns) } };
}

/** Of columns that could hold the amounts, percents beside ounces, the one in which most rows say one. */
function fullest(
  rows: readonly (readonly string[])[],
  head: number,
  { amount, ...others }: SheetColumns,
): number | null {
  if (others.weighed != null) return amount;
  const count = (column: number) => rows.slice(head + 1).filter((row) => isNumeric(row[column] ?? '')).length;
  const open = [...(rows[head] ?? []).keys()].filter((at) => !Object.values(others).includes(at));
  const named = open.filter((at) => HEADS.amount.test(folded(rows[head]![at]!)));
  // Where no head says so, the one column of numbers does; several are a table.
  const counted = others.what === null ? [] : open.filter((at) => count(at) > 0);
  const among = named.length === 0 && counted.length === 1 ? counted : named;
  return among.reduce((best: number | null, at) => {
    return best === null || count(at) > count(best) ? at : best;
  }, amount);
}

/** A unit at the end of a head: "Amount (g)", "Olive oil, g", "Olive g". */
const UNIT_AT_END = /\s*[([]([^)\]]+)[)\]]\s*$|,\s*([^,]+)$|\s(g|gr|grams?|oz|ounces?|ml|kg|lbs?)$/i;

/** The unit a head says at its end or as its only word: "Amount (g)", "oz". */
function unitOfHead(cell: string): SheetUnit | null {
  const [, inBrackets, afterComma, atEnd] = UNIT_AT_END.exec(cell.trim()) ?? [];
  const inside = inBrackets ?? afterComma ?? atEnd ?? cell;
  const words = folded(inside)
    .replace(/^(?:amounts?|weight|quantity|in)\b\s*(?:in\b)?/, '')
    .trim();
  if (/^%|%$|^percent/.test(words)) return '%';
  return words === '' ? null : unitIn(words);
}

/** Sums of fats within so many percent of a hundred count as a hundred. */
const ABOUT = 1.5;
/** Of a sheet's bars so many at least, 0 to 1, have to be so. */
const MOST = 0.8;

/** Whether bare numbers are percents: the fats of most bars add up to a hundred. */
function isInPercent(rows: readonly (readonly string[])[], layout: Layout): boolean {
  const sums = readSheet(rows, { ...layout, unit: '%' }).bars.flatMap(({ lines }) => {
    const fats = lines.filter(({ name, amount }) => amount.unit === '%' && isFatName(name));
    return fats.length > 0 ? [fats.reduce((sum, { amount }) => sum + amount.value, 0)] : [];
  });
  const whole = sums.filter((sum) => Math.abs(sum - 100) <= ABOUT);
  return sums.length > 0 && whole.length >= MOST * sums.length;
}

/** Rows that say name and amount in one cell, as a recipe is typed, with the two apart. */
const parted = (rows: readonly (readonly string[])[]): (readonly string[])[] =>
  rows.map((row) => (isAlone(row) && inOneCell(row.find((cell) => cell.trim() !== '')!)) || row);

/** How a sheet is most likely laid out; the maker may say otherwise. */
export function guessLayout(rows: readonly (readonly string[])[]): Layout {
  const layout = guessPlaces(parted(rows));
  return layout.unit === null && isInPercent(rows, layout) ? { ...layout, unit: '%' } : layout;
}

function guessPlaces(rows: readonly (readonly string[])[]): Layout {
  const { head, columns } = headOf(rows);
  const heads = rows[head] ?? [];
  if (head >= 0 && columns.what !== null && columns.amount !== null) {
    const unit = unitOfHead(heads[columns.amount] ?? '');
    if (columns.bar !== null) return { kind: 'list', head, columns, unit };
    return { kind: hasBlocks(rows, head, columns) ? 'blocks' : 'single', head, columns, unit };
  }
  // A table with numbers on both sides: bars are named along one of them.
  const first = rows.findIndex(
    (row) => filled(row.slice(1)) >= 2 && row.slice(1).every((cell) => !isNumeric(cell)),
  );
  const table = { bar: null, what: 0, amount: null, unit: null, note: null };
  if (first >= 0 && rows.slice(first + 1).some((row) => row.slice(1).filter(isNumeric).length >= 1)) {
    const corner = folded(rows[first]![0] ?? '');
    const isRows =
      rows[first]!.some((head) => HEADS.bar.test(folded(head))) ||
      (!HEADS.what.test(corner) &&
        looksLikeMaterials(rows[first]!.slice(1)) >
          looksLikeMaterials(rows.slice(first + 1).map((row) => row[0] ?? '')));
    const said =
      rows
        .slice(0, first + 1)
        .flat()
        .map(unitOfHead)
        .find((one) => one !== null) ?? null;
    return isRows
      ? {
          kind: 'rows',
          head: first,
          columns: { ...table, bar: nameColumn(rows[first]!), what: null },
          unit: said,
        }
      : { kind: 'columns', head: first, columns: table, unit: said };
  }
  // No heads at all: a name with what follows it, bar by bar.
  const isUnit = (cell = '') => cell.trim() !== '' && unitIn(cell) !== null;
  const amounts = rows.filter((row) => isNumeric(row[1] ?? ''));
  const unit = amounts.length > 0 && amounts.every((row) => isUnit(row[2])) ? 2 : null;
  return { kind: 'blocks', head: -1, columns: { ...table, amount: 1, unit }, unit: null };
}

/** Which column of a table of bars names them: one whose head says so, else the first. */
function nameColumn(heads: readonly string[]): number {
  const found = heads.findIndex((head) => HEADS.bar.test(folded(head)));
  return Math.max(0, found);
}

const MATERIAL_WORDS =
  /\b(?:oil|butter|water|lye|naoh|hydroxide|clay|wax|milk|salt|eo|fo|fragrance|mica|oxide|ol|wasser|huile|eau|olio|aceite)\b|ol$/;
const looksLikeMaterials = (names: readonly string[]) =>
  names.filter((name) => MATERIAL_WORDS.test(folded(name)) || isFatName(name)).length /
  Math.max(1, filled(names));

/** A name alone in its row that heads rows with amounts: a bar's, where it is no part of one. */
function hasBlocks(
  rows: readonly (readonly string[])[],
  head: number,
  { what, amount }: SheetColumns,
): boolean {
  let isNamed = false;
  return rows.slice(head + 1).some((row) => {
    const [name, said] = [cellAt(row, what), cellAt(row, amount)];
    if (isAlone(row) && name !== '' && !isSection(name)) isNamed = true;
    return isNamed && said !== '' && isNumeric(said);
  });
}

const isAlone = (row: readonly string[]) => filled(row) === 1;

/** What a sheet of one bar calls it above its rows. */
function titleOf(rows: readonly (readonly string[])[], head: number): string | null {
  for (const row of rows.slice(0, Math.max(0, head))) {
    const [first = '', second = ''] = row.filter((cell) => cell.trim() !== '');
    if (isAlone(row) && !isSection(first)) return barName(first);
    if (second !== '' && !isNumeric(second) && HEADS.bar.test(folded(first))) return second.trim();
  }
  return null;
}

interface Reader {
  bars: SheetBar[];
  faults: SheetFault[];
  /** The file's decimal mark; null where nothing shows it. */
  mark: DecimalMark;
}

function add(
  { bars, faults, mark }: Reader,
  bar: { name: string; row: number },
  { row, column }: Pick<SheetLine, 'row' | 'column'>,
  name: string,
  cell: string,
  unit: SheetUnit | null,
  note = '',
): SheetBar | null {
  if (name === '' || TOTAL.test(name)) return null;
  const settled = settleMark(cell, unit, mark);
  const amount = typeof settled === 'string' ? readCell(settled, unit) : settled;
  if (amount === null) return null;
  if ('error' in amount) {
    faults.push({ row, message: amount.error });
    return null;
  }
  let known = bars.find((one) => one.name === bar.name);
  if (!known) bars.push((known = { row: bar.row, name: bar.name, note, lines: [] }));
  known.lines.push({ row, name, amount, said: cell, column });
  return known;
}

const cellAt = (row: readonly string[], column: number | null) =>
  column === null ? '' : (row[column] ?? '').trim();

/** "Name: Bay Rum" in two cells. */
const isNaming = (name: string, said: string) =>
  HEADS.bar.test(folded(name)) && said !== '' && !isNumeric(said);

const SIDE_BY_SIDE = 'Bars stand side by side from this row on. Put them one under the other, and send that.';

/** Whether a row goes on beside its amount with another name and amount. */
function standBeside(row: readonly string[], { amount }: SheetColumns): boolean {
  const rest = row.slice((amount ?? 0) + 1);
  return rest.some((cell, at) => at > 0 && isNumeric(cell) && /\p{L}{3}/u.test(rest[at - 1]!));
}

function readDown(
  rows: readonly (readonly string[])[],
  layout: Layout,
  into: Reader,
  fallback: string,
): void {
  const { kind, head, columns, unit } = layout;
  const batches = kind === 'list' ? batchesOf(rows[head] ?? [], columns.bar, rows.slice(head + 1)) : null;
  let isTold = false;
  let bar = { name: kind === 'single' ? (titleOf(rows, head) ?? fallback) : '', row: 1 };
  rows.forEach((row, at) => {
    // In blocks the first bar may be named above the first heads.
    if (at === head || (at < head && kind !== 'blocks') || filled(row) === 0) return;
    const [name, amount, note] = [
      cellAt(row, columns.what),
      cellAt(row, columns.amount),
      cellAt(row, columns.note),
    ];
    const named = kind === 'list' ? cellAt(row, columns.bar) : '';
    const batch = batches?.[at - head - 1] ?? '';
    if (named !== '') bar = { name: batch === '' ? named : `${named} ${batch}`, row: at + 1 };
    if (amount === '' && isAlone(row) && isSection(name)) return;
    if (kind === 'blocks' && head < 0 && isNaming(name, amount)) {
      bar = { name: amount, row: at + 1 };
      return;
    }
    if (head < 0 && !isTold && standBeside(row, columns)) {
      into.faults.push({ row: at + 1, message: SIDE_BY_SIDE });
      isTold = true;
    }
    if (kind === 'blocks' && name !== '' && amount === '' && isAlone(row)) {
      bar = { name: barName(name), row: at + 1 };
      return;
    }
    // The heads may come again above each bar.
    if (HEADS.what.test(folded(name)) && HEADS.amount.test(folded(amount))) return;
    if (bar.name === '') {
      if (name !== '' && amount !== '')
        into.faults.push({
          row: at + 1,
          message: `“${name}” stands under no bar. Say which column names the bar.`,
        });
      return;
    }
    const own = unitIn(cellAt(row, columns.unit));
    const column = head < 0 && !isNumeric(rows[at]![columns.amount ?? 0] ?? '') ? null : columns.amount;
    const known = add(into, bar, { row: at + 1, column }, name, amount, own ?? unit, note);
    if (!known) return;
    if (batch !== '' && named !== '') known.of = named;
    const was = cellAt(row, columns.weighed ?? null);
    if (was !== '') (known.weighed ??= []).push({ batch, name, was, planned: amount });
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
      const bar = isRows ? { name: side, row: at + 1 } : { name: top, row: head + 1 };
      if (TOTAL.test(bar.name)) return;
      const said = (row[column] ?? '').trim();
      add(into, bar, { row: at + 1, column }, bare(isRows ? top : side), said, own ?? unit);
    });
  });
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
): Omit<Reader, 'mark'> {
  const into: Reader = { bars: [], faults: [], mark: fileMark(rows) };
  if (layout.kind === 'rows' || layout.kind === 'columns') readAcross(rows, layout, into);
  else readDown(layout.head < 0 ? parted(rows) : rows, layout, into, fallback);
  return { bars: withoutRepeats(into.bars), faults: unitsAsked(into.faults) };
}

/** Heads of columns that none of those named is, where rows have anything in them. */
export function unreadHeads(
  rows: readonly (readonly string[])[],
  { head, columns }: { head: number; columns: object },
): string[] {
  const read: unknown[] = Object.values(columns);
  return (rows[head] ?? []).filter(
    (cell, at) =>
      cell.trim() !== '' && !read.includes(at) && rows.slice(head + 1).some((row) => cellAt(row, at) !== ''),
  );
}
