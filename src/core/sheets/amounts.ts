/** Amounts as they stand in makers' own spreadsheets, with the unit in the cell, in a column of its own or in the head. */
import type { Amount, Measure } from '../formula/types';
import { readAmount } from '../quantities/amount';
import { unitRule, type Unit } from '../quantities/units';
import { struckRemedy } from './struck';

/** A unit, or a percent of which it is still to be said what of. */
export type SheetUnit = Unit | '%';

export interface SheetAmount {
  value: number;
  /** `:1` for a ratio, as of water to lye. */
  unit: SheetUnit | ':1';
  /** Where the cell says so: a heaped spoon, a pinch. */
  measuredBy?: Measure;
}

/** How the error of a number without a unit ends. */
const NO_UNIT = 'says no unit. Say which unit the column is in.';

/** Nothing but a number, with "about" before it at most. */
const BARE = /^(?:[~≈]|(?:about|ca|approx)\b\.?)?\s*[\d.,\s/½⅓⅔¼¾⅛⅜⅝⅞]+$/i;
const RATIO = /^(\d+(?:[.,]\d+)?)\s*:\s*(\d*[1-9]\d*(?:[.,]\d+)?)$/;
const numberIn = (text: string) => Number(text.replace(',', '.'));

/** The unit that words in a head or a cell name; null where they name none. */
export function unitIn(text: string): SheetUnit | null {
  const words = text.replace(/[()[\]]/g, ' ').trim();
  if (words === '') return null;
  const read = readAmount(`1 ${words}`, 'g');
  // What a word counts by the piece (drops, a Pfund) is no unit of a column.
  if (!read.ok || read.amount.value !== 1) return null;
  return read.isPercentOpen ? '%' : read.amount.unit;
}

/**
 * Reads a cell; a bare number is in `unit`. Null for an empty cell or a dash; an error in words where it is no amount.
 *
 * @example
 * readCell('5 oz ppo', 'g'); // { value: 5, unit: 'ozPerLbFats' }
 */
export function readCell(cell: string, unit: SheetUnit | null): SheetAmount | null | { error: string } {
  const text = cell.trim();
  if (text === '' || /^[-–—x]$/i.test(text)) return null;
  const struck = struckRemedy(text);
  if (struck) return { error: struck };
  const ratio = RATIO.exec(text);
  if (ratio) return { value: numberIn(ratio[1]!) / numberIn(ratio[2]!), unit: ':1' };
  const isBare = BARE.test(text);
  if (unit === null && isBare) return { error: `“${cell}” ${NO_UNIT}` };
  const read = readAmount(text, unit === null || unit === '%' ? 'g' : unit);
  if (!read.ok) return { error: `“${cell}”: ${read.message}` };
  const isPercent = read.isPercentOpen || (unit === '%' && isBare);
  const how = read.measuredBy ? { measuredBy: read.measuredBy } : {};
  return { value: read.amount.value, unit: isPercent ? '%' : read.amount.unit, ...how };
}

/** What a percent may be of. */
export type PercentOf = 'fats' | 'whole';

/** A sheet's amount as a formula takes it. Percents of the whole become grams of `wholeG`. */
export function amountOf(
  { value, unit }: { value: number; unit: SheetUnit },
  percentOf: PercentOf,
  wholeG: number,
): Amount {
  if (unit !== '%') return { value, unit };
  return percentOf === 'fats' ? { value, unit: '%fats' } : { value: (value * wholeG) / 100, unit: 'g' };
}

/** Grams of an amount that says a mass; null for any other. */
export function gramsOf({ value, unit }: SheetAmount): number | null {
  if (unit === '%' || unit === ':1') return null;
  const rule = unitRule(unit)!;
  return rule.base === 'absolute' && !rule.byVolume ? value * rule.factor : null;
}

/** Cells that say no unit, told once: one answer mends them all. */
export function unitsAsked<Fault extends { row: number; message: string }>(
  faults: readonly Fault[],
): Fault[] {
  const bare = faults.filter(({ message }) => message.endsWith(NO_UNIT));
  if (bare.length < 2) return [...faults];
  const [first] = bare as [Fault];
  const message = `${bare.length} numbers, this row’s first, say no unit. Say what bare numbers are in.`;
  return faults.flatMap((fault) => {
    if (fault === first) return [{ ...fault, message }];
    return bare.includes(fault) ? [] : [fault];
  });
}
