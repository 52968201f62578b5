/** A maker's list of what stands in the cupboard: materials with their suppliers and lots, a row each. Pure. */
import { twoWays } from './marks';
import { folded } from '../folded';
import type { Kind } from '../formula/types';
import { readNumber, type DecimalMark } from '../quantities/number';
import { unitRule } from '../quantities/units';
import { MOST_GRAMS, naohOf, USUAL_NAOH, type Alkali } from '../chemistry/saponification';
import { unitIn } from './amounts';
import { readDay, type MonthEnd } from './days';
import type { SheetFault } from './cells';
import { isTotal } from './words';
import {
  cellAt,
  filled,
  headUnit,
  isHeading,
  kindIn,
  priceOfIn,
  type PriceOf,
  type StockColumn,
  type StockLayout,
} from './stock-layout';

/** Grams, or millilitres of which it is still to be said what they weigh. */
export interface Held {
  value: number;
  isVolume: boolean;
}

export interface StockLot {
  /** Null where none is written down. */
  code: string | null;
  bought: Held;
  left: Held;
  price: number | null;
  priceOf: PriceOf;
  receivedOn: string | null;
  openedOn: string | null;
  bestBefore: string | null;
}

export interface StockItem {
  row: number;
  name: string;
  supplier: string;
  kind: Kind | null;
  inci: string;
  naohPerGram: number | null;
  lot: StockLot | null;
}

const TIMES = /^(\d+)\s*[x×*]\s*(.+)$/i;
/** "2 lb x 4" */
const TIMES_BEHIND = /^(.+?)\s*[x×*]\s*(\d+)$/i;
/** What something is bought in, which says nothing of how much it is. */
const CONTAINER =
  /\s*\b(?:pail|bucket|bottle|jar|tub|bag|box|tin|can|container|jug|drum|pack|sack|flasche|dose|eimer|beutel|flacon|seau|sac|pot)s?\b\s*$/i;
/** Measures of a shop that no formula is stated in, millilitres. */
const SHOP_ML: readonly (readonly [RegExp, number])[] = [
  [/^(?:gal|gallons?)\.?$/i, 3785.411784],
  [/^(?:qt|quarts?)\.?$/i, 946.352946],
  [/^(?:pt|pints?)\.?$/i, 473.176473],
];

const GONE =
  /^(?:empty|none|nil|leer|alle|aufgebraucht|vide|epuise|vuoto|finito|vacio|agotado|leeg|op|used up|all gone|gone|finished)$/;

/** What a bare number is a multiple of: grams, or millilitres. */
interface HeldUnit {
  factor: number;
  isVolume: boolean;
}

/** The mass or volume that words name, shops' measures too; null where they name none. */
function heldUnit(words: string | null): HeldUnit | null {
  if (words === null) return null;
  const ml = SHOP_ML.find(([pattern]) => pattern.test(words.trim()))?.[1];
  if (ml !== undefined) return { factor: ml, isVolume: true };
  const unit = unitIn(words);
  const rule = unit === null || unit === '%' ? undefined : unitRule(unit);
  return rule?.base === 'absolute' ? { factor: rule.factor, isVolume: rule.byVolume } : null;
}

/**
 * How much a cell says there is, bare numbers in the unit that words name; null for an empty one, an error in words for
 * what cannot be read.
 *
 * @example readHeld('2 x 500 g', null, null) // { value: 1000, isVolume: false }
 */
export function readHeld(
  cell: string,
  unit: string | null,
  mark: DecimalMark,
): Held | null | { error: string } {
  const text = cell
    .replace(/[~≈]|\b(?:about|ca|approx)\b\.?/gi, '')
    .replace(CONTAINER, '')
    .trim();
  if (text === '' || /^[-–—?]$/.test(text)) return null;
  if (GONE.test(folded(text))) return { value: 0, isVolume: false };
  const [before, behind] = [TIMES.exec(text), TIMES_BEHIND.exec(text)];
  const each = before?.[2] ?? behind?.[1] ?? text;
  const times = Number(before?.[1] ?? behind?.[2] ?? 1);
  const [, digits = '', said = ''] = /^([\d.,\s'’\u00a0\u202f]+)(.*)$/.exec(each) ?? [];
  const value = readNumber(digits, mark) * times;
  if (!(value >= 0)) return { error: `“${cell}” is no amount. Write it as 500 g.` };
  const words = said.trim();
  const own = heldUnit(words === '' ? unit : words);
  // Of grams and millilitres a mark before three digits may be either; of larger units it is a decimal one.
  const open = mark === null && own?.factor === 1 ? twoWays(digits) : null;
  if (open) return { error: open };
  if (own) return { value: value * own.factor, isVolume: own.isVolume };
  return {
    error:
      words === ''
        ? `“${cell}” says no unit. Say which unit the column is in.`
        : `“${words}” is no mass or volume here. Try g, kg, oz, lb, ml or l.`,
  };
}

/** A price without its currency. */
function readPrice(cell: string, mark: DecimalMark): number | null | { error: string } {
  const bare = cell
    .replace(/\s*(?:\/|\b(?:per|je|pro)\b).*$/i, '')
    .replace(/[€$£]|\b[A-Z]{3}\b|\b(?:kr|zł)\b/g, '')
    .trim();
  if (bare === '' || /^[-–—?]$/.test(bare)) return null;
  const value = readNumber(bare, mark);
  return value >= 0 ? value : { error: `“${cell}” is no price.` };
}

const PRICED_G: Record<Exclude<PriceOf, 'all'>, number> = {
  kg: 1000,
  '100 g': 100,
  lb: unitRule('lb')!.factor,
  oz: unitRule('oz')!.factor,
};

/** More sodium hydroxide than any fat takes up, grams a gram. */
export const MOST_NAOH = 0.3;

/** Which alkali a head speaks of; by its definition the saponification value is of potassium hydroxide. */
function alkaliIn(head: string): Alkali | null {
  const isKoh = /koh|potas|kali/.test(head);
  const isNaoh = /naoh|sodium|natri|natron/.test(head);
  if (isKoh !== isNaoh) return isKoh ? 'KOH' : 'NaOH';
  return !isKoh && /saponification|verseif|\bsv\b/.test(head) ? 'KOH' : null;
}

/** Grams of sodium hydroxide a gram takes up, of a value in any of the usual ways; alkali and unit are from the head. */
function readSap(cell: string, head: string, mark: DecimalMark): number | null | { error: string } {
  if (cell === '' || /^[-–—?]$/.test(cell)) return null;
  const value = readNumber(cell, mark);
  const words = folded(head);
  if (value === 0) return 0;
  const alkali = alkaliIn(words);
  if (!alkali) return { error: `“${cell}”: say in the head whether it is NaOH or KOH.` };
  const isMg = value > MOST_GRAMS;
  const naoh = naohOf(value, alkali);
  if (naoh >= USUAL_NAOH.least && naoh <= USUAL_NAOH.most) return naoh;
  if (!(naoh >= 0)) return { error: `“${cell}” is no saponification value.` };
  const said = `${Number(naoh.toPrecision(3))} g of NaOH a gram`;
  return {
    error: `“${cell}” as ${isMg ? 'milligrams' : 'grams'} of ${alkali} is ${said}; fats take ${USUAL_NAOH.least} to ${USUAL_NAOH.most}. Is the unit or the alkali another? A wax is put in by hand.`,
  };
}

interface Row {
  row: number;
  cells: readonly string[];
  heads: readonly string[];
  layout: StockLayout;
  faults: SheetFault[];
}

/** What a cell says, or null with its fault noted. */
function noted<T>({ row, faults }: Row, read: T | { error: string }): T | null {
  if (typeof read !== 'object' || read === null || !('error' in read)) return read;
  faults.push({ row, message: read.error });
  return null;
}

/** Not opened. */
const NOT_YET = /^(?:no|not yet|nein|non|nee|closed|sealed|zu|ferme|chiuso|cerrado|dicht)$/;

/** So much of what was bought is left: "40 %". */
const SHARE_LEFT = /^(\d{1,3}(?:[.,]\d+)?)\s*%$/;

/** How many packs a cell says there are; null for an empty one, an error in words for what is no count. */
function readCount(cell: string): number | null | { error: string } {
  if (cell === '' || /^[-–—?]$/.test(cell)) return null;
  const count = Number(/^(\d{1,4})(?:\s*(?:x|×|pcs|st\.?|stk\.?))?$/i.exec(cell)?.[1]);
  return count > 0 ? count : { error: `“${cell}” is no number of packs. Write a whole number.` };
}

function lotOf(from: Row): StockLot | null {
  const { cells, heads, layout } = from;
  const { columns, mark, priceOf } = layout;
  const text = (column: StockColumn) => cellAt(cells, columns[column]);
  const day = (column: StockColumn, end: MonthEnd) =>
    noted(from, readDay(text(column), layout.days ?? 'dayFirst', end));
  const own = heldUnit(text('unit')) ? text('unit') : null;
  const held = (column: 'bought' | 'left') => {
    const inHead = columns[column] === null ? null : headUnit(heads[columns[column]] ?? '');
    return noted(from, readHeld(text(column), own ?? inHead ?? layout.unit, mark));
  };
  const count = readCount(text('count'));
  const times = noted(from, count) ?? 1;
  const each = count === null || typeof count === 'number' ? held('bought') : null;
  const bought = each && { ...each, value: each.value * times };
  const share = SHARE_LEFT.exec(text('left'))?.[1];
  const left =
    share !== undefined && bought
      ? { ...bought, value: (bought.value * readNumber(share, mark)) / 100 }
      : held('left');
  const lot = {
    code: text('code') || null,
    price: noted(from, readPrice(text('price'), mark)),
    priceOf: priceOfIn(text('price')) ?? priceOf,
    receivedOn: day('received', 'first'),
    openedOn: NOT_YET.test(folded(text('opened'))) ? null : day('opened', 'first'),
    bestBefore: day('bestBefore', 'last'),
  };
  const whole = bought ?? left;
  if (whole) return { ...lot, bought: whole, left: left ?? whole };
  if (lot.code !== null && text('bought') === '' && text('left') === '')
    from.faults.push({ row: from.row, message: `Lot ${lot.code}: say how much of it there is.` });
  return null;
}

/**
 * Every material of a list with its lot, and what could not be read, by row. A row without a name is another lot of the
 * material above it; a row with nothing but a kind of thing heads the rows below it.
 *
 * @example
 * readStock(rows, guessStock(rows)).items[0].lot?.bought; // { value: 5000, isVolume: false }
 */
export function readStock(
  rows: readonly (readonly string[])[],
  layout: StockLayout,
): { items: StockItem[]; faults: SheetFault[] } {
  const { head, columns } = layout;
  const heads = rows[head] ?? [];
  const items: StockItem[] = [];
  const faults: SheetFault[] = [];
  let section: Kind | null = null;
  let above: StockItem | null = null;
  rows.forEach((cells, at) => {
    if (at <= head || filled(cells) === 0) return;
    const name = cellAt(cells, columns.what);
    if (isTotal(name)) return;
    if (filled(cells) === 1 && isHeading(name)) {
      section = kindIn(name);
      return;
    }
    const from = { row: at + 1, cells, heads, layout, faults };
    const lot = lotOf(from);
    if (name === '') {
      if (above && lot) items.push({ ...above, row: at + 1, lot });
      // A name that only heads its lots is no other one without any.
      if (above && lot && above.lot === null && items.includes(above)) items.splice(items.indexOf(above), 1);
      return;
    }
    above = {
      row: at + 1,
      name,
      supplier: cellAt(cells, columns.supplier),
      kind: kindIn(cellAt(cells, columns.kind)) ?? section,
      inci: cellAt(cells, columns.inci),
      naohPerGram: noted(
        from,
        readSap(cellAt(cells, columns.sap), heads[columns.sap ?? -1] ?? '', layout.mark),
      ),
      lot,
    };
    items.push(above);
  });
  return { items, faults };
}

/** Grams of what is held, by what a millilitre weighs; null where that is asked for and not known. */
export function gramsHeld({ value, isVolume }: Held, gPerMl: number | null): number | null {
  if (!isVolume) return value;
  return gPerMl === null ? null : value * gPerMl;
}

/**
 * What all of a lot cost, by what its price is of.
 *
 * @example priceOfAll(12, 'kg', 2500) // 30
 */
export const priceOfAll = (price: number, of: PriceOf, grams: number): number =>
  of === 'all' ? price : (price * grams) / PRICED_G[of];
