/**
 * How a maker's spreadsheet is laid out, and what each bar in it holds. Five ways are known: a row an ingredient with
 * the bar beside it (`list`), the same with the bar named once above its rows (`blocks`), a row a bar with a column an
 * ingredient (`rows`), a column a bar with a row an ingredient (`columns`), and one bar alone (`single`). Pure.
 */
import { folded } from '../folded';
import { readCell, unitIn, type SheetAmount, type SheetUnit } from './amounts';

export const SHEET_KINDS = ['list', 'blocks', 'rows', 'columns', 'single'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** Columns that say what; numbered from 0, null where the sheet has none. */
export interface SheetColumns {
  bar: number | null;
  what: number | null;
  amount: number | null;
  unit: number | null;
  note: number | null;
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
}

export interface SheetBar {
  row: number;
  name: string;
  note: string;
  lines: SheetLine[];
}

export interface SheetFault {
  row: number;
  message: string;
}

const HEADS = {
  bar: /^(?:recipe|bar|soap|product|formula|batch|name of (?:bar|soap|recipe)|rezept|seife|produkt|savon|recette|sapone|ricetta|zeep|recept|jabon|receta|name|nombre|nom|title)s?\b/,
  what: /^(?:ingredients?|materials?|what|item|component|oil|zutat|rohstoff|ingredienti?|ingredientes?|matiere|ingredient name|grondstof|stoff|substance)\b/,
  amount:
    /^(?:amounts?|quantity|qty|weight|mass|menge|gewicht|quantite|poids|quantita|peso|cantidad|hoeveelheid|how much|value|grams?|ounces?|g|oz|gr|%|percent(?:age)?|pct|anteil)\b|^%/,
  unit: /^(?:unit|units|uom|einheit|unite|unita|unidad|eenheid|measure)\b/,
  note: /^(?:notes?|remarks?|comments?|bemerkung|description)\b/,
} as const;
const TOTAL = /^(?:total|sum|summe|gesamt|totale|batch (?:size|weight)|check)\b/i;

const isNumeric = (cell: string) =>
  /^[~≈]?\s*[\d.,]+(?:\s*\/\s*\d+)?\s*(?:%|[a-z./ ]{1,16})?$/i.test(cell.trim()) && /\d/.test(cell);
const filled = (row: readonly string[]) => row.filter((cell) => cell.trim() !== '').length;

function headOf(rows: readonly (readonly string[])[]): { head: number; columns: SheetColumns } {
  const none: SheetColumns = { bar: null, what: null, amount: null, unit: null, note: null };
  let best = { head: -1, columns: none, score: 0 };
  rows.slice(0, 15).forEach((row, head) => {
    const columns = { ...none };
    for (const [at, cell] of row.entries())
      for (const key of ['what', 'unit', 'amount', 'note', 'bar'] as const)
        if (columns[key] === null && HEADS[key].test(folded(cell)) && !Object.values(columns).includes(at))
          columns[key] = at;
    const score =
      Object.values(columns).filter((one) => one !== null).length + (columns.what !== null ? 1 : 0);
    if (score > best.score) best = { head, columns, score };
  });
  return best.score >= 2 ? best : { head: -1, columns: none };
}

/** The unit a head says in brackets or as its only word: "Amount (g)", "Olive oil, g", "oz". */
function unitOfHead(cell: string): SheetUnit | null {
  const inside = /[([]([^)\]]+)[)\]]/.exec(cell)?.[1] ?? /,\s*([^,]+)$/.exec(cell)?.[1] ?? cell;
  const words = folded(inside)
    .replace(/^(?:amounts?|weight|quantity|in)\b\s*(?:in\b)?/, '')
    .trim();
  return words === '' ? null : unitIn(words);
}

/** How a sheet is most likely laid out; the maker may say otherwise. */
export function guessLayout(rows: readonly (readonly string[])[]): Layout {
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
      HEADS.bar.test(corner) ||
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
      ? { kind: 'rows', head: first, columns: { ...table, bar: 0, what: null }, unit: said }
      : { kind: 'columns', head: first, columns: table, unit: said };
  }
  // No heads at all: a name with what follows it, bar by bar.
  return { kind: 'blocks', head: -1, columns: { ...table, amount: 1 }, unit: null };
}

const MATERIAL_WORDS =
  /\b(?:oil|butter|water|lye|naoh|hydroxide|clay|wax|milk|salt|eo|fo|fragrance|mica|oxide|ol|wasser|huile|eau|olio|aceite)\b|ol$/;
const looksLikeMaterials = (names: readonly string[]) =>
  names.filter((name) => MATERIAL_WORDS.test(folded(name))).length / Math.max(1, filled(names));

function hasBlocks(
  rows: readonly (readonly string[])[],
  head: number,
  { what, amount }: SheetColumns,
): boolean {
  return rows
    .slice(head + 1)
    .some(
      (row) => filled(row) === 1 && (row[what!] ?? '').trim() !== '' && (row[amount!] ?? '').trim() === '',
    );
}

interface Reader {
  bars: SheetBar[];
  faults: SheetFault[];
}

function add(
  { bars, faults }: Reader,
  bar: { name: string; row: number },
  row: number,
  name: string,
  cell: string,
  unit: SheetUnit | null,
  note = '',
): void {
  if (name === '' || TOTAL.test(name)) return;
  const amount = readCell(cell, unit);
  if (amount === null) return;
  if ('error' in amount) {
    faults.push({ row, message: amount.error });
    return;
  }
  let known = bars.find((one) => one.name === bar.name);
  if (!known) bars.push((known = { row: bar.row, name: bar.name, note, lines: [] }));
  known.lines.push({ row, name, amount });
}

const cellAt = (row: readonly string[], column: number | null) =>
  column === null ? '' : (row[column] ?? '').trim();

function readDown(
  rows: readonly (readonly string[])[],
  layout: Layout,
  into: Reader,
  fallback: string,
): void {
  const { kind, head, columns, unit } = layout;
  let bar = { name: kind === 'single' ? fallback : '', row: 1 };
  rows.forEach((row, at) => {
    // In blocks the first bar may be named above the first heads.
    if (at === head || (at < head && kind !== 'blocks') || filled(row) === 0) return;
    const [name, amount, note] = [
      cellAt(row, columns.what),
      cellAt(row, columns.amount),
      cellAt(row, columns.note),
    ];
    const named = kind === 'list' ? cellAt(row, columns.bar) : '';
    if (named !== '') bar = { name: named, row: at + 1 };
    if (kind === 'blocks' && name !== '' && amount === '' && filled(row) === 1) {
      bar = { name: name.replace(/:$/, ''), row: at + 1 };
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
    add(into, bar, at + 1, name, amount, own ?? unit, note);
  });
}

function readAcross(rows: readonly (readonly string[])[], { kind, head, unit }: Layout, into: Reader): void {
  const heads = rows[head] ?? [];
  rows.forEach((row, at) => {
    if (at <= head || filled(row) === 0) return;
    heads.forEach((cell, column) => {
      if (column === 0 || cell.trim() === '') return;
      const [side, top] = [(row[0] ?? '').trim(), cell.trim()];
      if (side === '') return;
      const isRows = kind === 'rows';
      const own = unitOfHead(isRows ? top : side);
      const bare = (text: string) => (own ? text.replace(/\s*[([][^)\]]*[)\]]\s*$|,\s*[^,]+$/, '') : text);
      const bar = isRows ? { name: side, row: at + 1 } : { name: top, row: head + 1 };
      if (TOTAL.test(bar.name)) return;
      add(into, bar, at + 1, bare(isRows ? top : side), (row[column] ?? '').trim(), own ?? unit);
    });
  });
}

/**
 * Every bar of a sheet in a layout, and what could not be read, by row. `fallback` names a bar that stands alone.
 *
 * @example
 * readSheet(rows, guessLayout(rows)).bars; // bars by name, their rows with material and amount
 */
export function readSheet(rows: readonly (readonly string[])[], layout: Layout, fallback = 'A bar'): Reader {
  const into: Reader = { bars: [], faults: [] };
  if (layout.kind === 'rows' || layout.kind === 'columns') readAcross(rows, layout, into);
  else readDown(rows, layout, into, fallback);
  return into;
}
