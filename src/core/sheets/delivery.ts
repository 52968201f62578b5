/**
 * A delivery of many things as it is typed or pasted, a line each: "olive oil; 5 kg; lot X12; 10/2027; 45.00". The cells
 * behind the name come in any order and are told by what they are. Pure.
 */
import { readCell } from './amounts';
import { readDay, isOrderOpen } from './days';
import { inOneCell } from './words';
import { gramsHeld, type Held } from './stock';
import { unitRule } from '../quantities/units';

export interface DeliveredLine {
  /** Of the text, from 1. */
  row: number;
  name: string;
  held: Held | null;
  /** As the supplier numbers it; null where nothing was said. */
  code: string | null;
  bestBefore: string | null;
  price: number | null;
  /** What cannot be read, in words. */
  fault: string | null;
}

const APART = /\t|;|,(?!\d)|(?<!\d),/;
const LOT = /^(?:lot|batch|charge|ch\.-b\.|los|partie|lotto|lote|l)\s*[.:#]?\s*(?=\S)/i;
const PRICE = /^(?:[€$£]\s*(\d+(?:[.,]\d{1,2})?)|(\d+(?:[.,]\d{1,2})?)\s*(?:[€$£]|eur|usd|gbp|chf))$/i;
const BARE = /^\d+(?:[.,]\d{1,2})?$/;
const DAY_LIKE =
  /^(?:bb|best before|mhd|dluo|scad\.?|cad\.?|exp\.?|use by)?\s*:?\s*(\d{4}-\d{1,2}(?:-\d{1,2})?|\d{1,2}[-./]\d{1,2}[-./]\d{2,4}|\d{1,2}[-./]\d{4})$/i;
const HEAD = /^(?:name|material|item|what|produkt|product|artikel|article)$/i;

const number = (text: string) => Number(text.replace(',', '.'));

function heldIn(cell: string): Held | null {
  const read = readCell(cell, null);
  if (read === null || 'error' in read || read.unit === '%' || read.unit === ':1') return null;
  const rule = unitRule(read.unit)!;
  if (rule.base !== 'absolute') return null;
  return { value: read.value * rule.factor, isVolume: rule.byVolume };
}

function takeCell(line: DeliveredLine, cell: string): void {
  const day = DAY_LIKE.exec(cell)?.[1];
  if (day) {
    const read = isOrderOpen([day])
      ? { error: `“${cell}” may be two days. Write it as 2027-03-14.` }
      : readDay(day, 'dayFirst', 'last');
    if (read !== null && typeof read === 'object') line.fault ??= read.error;
    else line.bestBefore = read;
    return;
  }
  const price = PRICE.exec(cell);
  if (price) line.price = number(price[1] ?? price[2]!);
  else if (line.held === null && heldIn(cell)) line.held = heldIn(cell);
  else if (BARE.test(cell) && line.held !== null && line.price === null) line.price = number(cell);
  else if (line.code === null) line.code = cell.replace(LOT, '');
  else line.fault ??= `“${cell}” is one thing too many.`;
}

/**
 * The lines of a delivery; a line that only heads the others is left out.
 *
 * @example
 * readDelivery('olive oil; 5 kg; lot X12; 10/2027; 45.00')[0]!.bestBefore; // '2027-10-31'
 */
export function readDelivery(text: string): DeliveredLine[] {
  return text.split(/\r?\n/).flatMap((raw, at): DeliveredLine[] => {
    const cells = raw
      .split(APART)
      .map((cell) => cell.trim())
      .filter((cell) => cell !== '');
    const [first] = cells;
    if (first === undefined || HEAD.test(first)) return [];
    const both = inOneCell(first);
    const line: DeliveredLine = {
      ...{ row: at + 1, name: both?.[0] ?? first, held: both ? heldIn(both[1]) : null },
      ...{ code: null, bestBefore: null, price: null, fault: null },
    };
    for (const cell of cells.slice(1)) takeCell(line, cell);
    if (line.held === null) line.fault ??= 'Say how much of it came, with its unit: 5 kg.';
    return [line];
  });
}

/** Grams of a line; NaN of what is told by volume where a millilitre's weight is not known. */
export const deliveredG = ({ held }: DeliveredLine, gPerMl: number | null): number =>
  held === null ? NaN : (gramsHeld(held, gPerMl) ?? NaN);
