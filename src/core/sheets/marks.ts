/**
 * A mark before three digits: thousands where the file's decimals stand behind the other one, a decimal mark where they
 * stand behind this one, and asked about where nothing tells and both could be meant.
 */
import { decimalMarkOf } from '../paperwork/figures';
import type { DecimalMark } from '../quantities/number';
import { unitIn, type SheetUnit } from './amounts';

/** "1,250", alone among its digits. */
const LONE = /(?<![\d.,])([1-9]\d{0,2})([.,])(\d{3})(?![\d.,])/;
/** Of these nobody weighs a thousandth part, and a thousand is usual; of pounds, kilograms and percents it is the other way. */
const SMALL: ReadonlySet<SheetUnit> = new Set<SheetUnit>(['g', 'mL']);

/** The decimal mark of a whole file, from the cells that can be read one way only; null where none can. */
export const fileMark = (rows: readonly (readonly string[])[]): DecimalMark => decimalMarkOf(rows.flat());

/** Both numbers that a mark before three digits can mean, in words; null where a text has no such mark. */
export function twoWays(text: string): string | null {
  const [said, whole, , rest] = LONE.exec(text) ?? [];
  if (said === undefined) return null;
  return `“${text.trim()}” reads as ${whole}${rest} and as ${whole}.${rest}. Write the one that is meant.`;
}

/**
 * A cell with its thousands written out; an error in words where it reads two ways.
 *
 * @example settleMark('1.250', 'g', ',') // '1250'
 */
export function settleMark(
  cell: string,
  unit: SheetUnit | null,
  mark: DecimalMark,
): string | { error: string } {
  const [said, whole, own, rest] = LONE.exec(cell) ?? [];
  if (said === undefined || own === mark) return cell;
  const behind = cell.slice(cell.indexOf(said) + said.length).replace(/^[^\p{L}%]+/u, '');
  const of = unitIn(behind.split(/\s/)[0] ?? '') ?? unit;
  if (mark !== null) return cell.replace(said, `${whole}${rest}`);
  if (of === null || !SMALL.has(of)) return cell;
  return { error: twoWays(cell)! };
}
