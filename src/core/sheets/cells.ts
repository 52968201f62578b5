/** Cells, rows and heads of a maker's spreadsheet, and what is said of them: what guessing and reading share. Pure. */
import { folded } from '../folded';
import type { Stage } from '../formula/types';
import { readNumberOrNull } from '../quantities/number';
import { unitIn, type SheetAmount, type SheetUnit } from './amounts';
import { inOneCell } from './words';

export const SHEET_KINDS = ['list', 'blocks', 'rows', 'columns', 'single'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** Columns that say what; numbered from 0, null where the sheet has none. */
export interface SheetColumns {
  bar: number | null;
  what: number | null;
  amount: number | null;
  unit: number | null;
  note: number | null;
  /** When it goes in. */
  stage?: number | null;
  /** The portion of the batter that it is for. */
  portion?: number | null;
  /** What was weighed, beside what was planned. */
  weighed?: number | null;
  /** A column in a larger unit that goes together with the amount: pounds beside ounces. */
  larger?: number | null;
}

export interface Layout {
  kind: SheetKind;
  /** The row of heads; -1 where there is none. */
  head: number;
  columns: SheetColumns;
  /** What bare numbers are in; null where it is still to be said. */
  unit: SheetUnit | null;
  /** Cells that were pointed at as a bar's name, numbered from 0. */
  named?: readonly CellAt[];
  /** Rows, from 0, that were pointed at as naming no bar. */
  unnamed?: readonly number[];
}

/** A cell by its row and column, both from 0. */
export interface CellAt {
  row: number;
  column: number;
}

/** What a row of a recipe says: an ingredient, or something of the batch. */
export const ROLES = [
  'lye',
  'lyeSolution',
  'superfat',
  'fats',
  'potash',
  'liquid',
  'batch',
  'material',
] as const;
export type Role = (typeof ROLES)[number];

export interface SheetLine {
  /** Row of the sheet, from 1, as a spreadsheet numbers them. */
  row: number;
  name: string;
  amount: SheetAmount;
  /** The cell, or the piece of text, as it stands there. */
  said: string;
  /** Its column, from 0; null where name and amount stand in one cell. */
  column: number | null;
  /** What it was pointed at as, whatever its name says. */
  role?: Role;
  /** When it goes in, where the sheet says it in words that are known. */
  stage?: Stage;
  /** The portion that it is for, as it stands there. */
  portion?: string;
}

export interface SheetBar {
  row: number;
  /** The column of its name, from 0, where it is not the layout's; null where no cell names it. */
  column?: number | null;
  name: string;
  note: string;
  lines: SheetLine[];
  /** The bar whose batch it is, where the sheet says batches. */
  of?: string;
  /** What its rows say was weighed, with the batch, as it stands there. */
  weighed?: { row: number; batch: string; name: string; was: string; planned: string }[];
}

export interface SheetFault {
  row: number;
  message: string;
}

export const HEADS = {
  bar: /^(?:recipe|bar|soap|product|formula|batch|name of (?:bar|soap|recipe)|rezept|seife|produkt|savon|recette|sapone|ricetta|zeep|recept|jabon|receta|name|nombre|nom|title)s?(?: names?)?:?$/,
  what: /^(?:(?:raw )?ingredients?|raw materials?|trade names?|inci(?: names?)?|materials?|what|item|component|oils?|fats?|fette|ole|huiles?|zutat|rohstoff|ingredienti?|ingredientes?|matiere|ingredient name|grondstof|stoff|substance|składnik(?:i)?)\b/,
  amount:
    /^(?:amounts?|quantity|qty|weight|mass|menge|gewicht|quantite|poids|quantita|peso|cantidad|hoeveelheid|ilosc|how much|value|gram(?:s|m|mes?|mi|os)?|ounces?|unzen|onces|kilos?|g|oz|gr|kg|lbs?|%|prozent|percent(?:age)?|pct|anteil|parts?|teile|parties|partes|parti|delen)\b|^%/,
  unit: /^(?:unit|units|uom|einheit|unite|unita|unidad|eenheid|measure)\b/,
  stage: /^(?:stage|phase|goes in|when|added(?: at)?|zugabe|etape|fase)\b/,
  portion: /^portions?$/,
  note: /^(?:notes?|remarks?|comments?|bemerkung|description)\b/,
} as const;
/** How sheets say when something goes in; letters of phases say nothing that is the same everywhere. */
const STAGES_SAID: readonly (readonly [Stage, RegExp])[] = [
  ['intoFats', /^into ?(?:the )?(?:fats|oils)$/],
  ['fats', /^(?:fats?|oils?|oil phase)$/],
  ['heldBack', /^(?:liquid )?held ?back$/],
  ['liquid', /^(?:liquids?|water|water phase)$/],
  ['lye', /^(?:(?:in(?:to)? )?(?:the )?lye(?: water| solution)?)$/],
  ['afterCook', /^after ?(?:the )?cook(?:ing)?$/],
  ['top', /^(?:on )?(?:the )?top(?:pings?)?$/],
  ['trace', /^(?:(?:at|after) )?(?:(?:light|medium|thin) )?trace$/],
];

/** When a cell says that something goes in; undefined where it says nothing that is known. */
export const stageIn = (cell: string): Stage | undefined =>
  STAGES_SAID.find(([, said]) => said.test(folded(cell)))?.[0];

export const isNumeric = (cell: string) =>
  /^[~≈]?\s*[\d.,]+(?:\s*[/:]\s*\d+)?\s*(?:%|[a-z./ ]{1,16})?$/i.test(cell.trim()) && /\d/.test(cell);
export const filled = (row: readonly string[]) => row.filter((cell) => cell.trim() !== '').length;

/** A unit at the end of a head: "Amount (g)", "Olive oil, g", "Olive g". */
export const UNIT_AT_END = /\s*[([]([^)\]]+)[)\]]\s*$|,\s*([^,]+)$|\s(g|gr|grams?|oz|ounces?|ml|kg|lbs?)$/i;

/** The unit a head says at its end or as its only word: "Amount (g)", "oz". */
export function unitOfHead(cell: string): SheetUnit | null {
  const [, inBrackets, afterComma, atEnd] = UNIT_AT_END.exec(cell.trim()) ?? [];
  const inside = inBrackets ?? afterComma ?? atEnd ?? cell;
  const words = folded(inside)
    .replace(
      /^(?:amounts?|weights?|quantity|gewicht|menge|poids|quantite|peso|cantidad|quantita|gewicht|hoeveelheid|in|en)\b\s*(?:(?:in|en|de|di)\b)?/,
      '',
    )
    .trim();
  if (/^%|%$|^percent/.test(words)) return '%';
  return words === '' ? null : unitIn(words);
}

export const isAlone = (row: readonly string[]) => filled(row) === 1;

export const cellAt = (row: readonly string[], column: number | null) =>
  column === null ? '' : (row[column] ?? '').trim();

/** Pairs of columns that say one amount together, and how many of the smaller one make the larger. */
const PAIRS: readonly (readonly [larger: SheetUnit, smaller: SheetUnit, times: number])[] = [
  ['lb', 'oz', 16],
  ['kg', 'g', 1000],
];
/** A price or a rate, as "Price per kg": it says no amount, whatever unit it ends with. */
const RATE =
  /\bper\b|\/|\b(?:price|cost|preis|kosten|prix|cout|precio|coste|prezzo|costo|prijs)\w*\b|[€$£]|\b(?:eur|usd|gbp|chf)\b/;
/** Both columns of a pair say the same amount where they are so near, as a share of it. */
const SAME = 0.03;

/**
 * Two columns that say one amount together, "lb" beside "oz": where a row says both, the smaller is less than one of the
 * larger, and they are not the same amount twice. Null where there are none.
 */
export function pairedColumns(
  heads: readonly string[],
  rows: readonly (readonly string[])[],
): { larger: number; smaller: number } | null {
  const numberAt = (row: readonly string[], at: number) => readNumberOrNull(row[at] ?? '') ?? 0;
  const units = heads.map((head) => (RATE.test(folded(head)) ? null : unitOfHead(head)));
  for (const [large, small, times] of PAIRS) {
    const [larger, smaller] = [units.indexOf(large), units.indexOf(small)];
    if (larger < 0 || smaller < 0 || !rows.some((row) => numberAt(row, larger) > 0)) continue;
    // What is no number, as a percent of the fats, says nothing of the two.
    const both = rows
      .map((row) => [numberAt(row, larger) * times, numberAt(row, smaller)] as const)
      .filter(([many, few]) => many > 0 && few > 0);
    const isTwice = both.every(([many, few]) => Math.abs(many - few) <= SAME * many);
    if (both.length === 0 || (!isTwice && both.every(([, few]) => few < times))) return { larger, smaller };
  }
  return null;
}

/** The amount of a row, from both columns where it has two: "1 lb 8 oz". The larger one's unit is from its head. */
export function amountAt(
  row: readonly string[],
  heads: readonly string[],
  { amount, larger = null }: SheetColumns,
  unit: SheetUnit | null,
): string {
  const [many, few] = [cellAt(row, larger), cellAt(row, amount)];
  if (many === '' || Number(many) === 0) return few;
  const of = unitOfHead(cellAt(heads, larger)) ?? '';
  return few === '' ? `${many} ${of}` : `${many} ${of} ${few} ${unit ?? ''}`.trim();
}

/** Rows that say name and amount in one cell, as a recipe is typed, with the two apart. */
export const parted = (rows: readonly (readonly string[])[]): (readonly string[])[] =>
  rows.map((row) => (isAlone(row) && inOneCell(row.find((cell) => cell.trim() !== '')!)) || row);
