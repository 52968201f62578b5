/** Days as they stand in makers' spreadsheets. Pure. */
import { findDay, type DayOrder } from '../paperwork/dates';
import { dayAfter, monthsAfter, realDay } from '../quantities/day';

/** What only a month is taken for: what comes begins with it, what lasts ends with it. */
export type MonthEnd = 'first' | 'last';

const FIGURES = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4}|\d{2})$/;
const MONTH = /^(?:(\d{1,2})[./-](\d{4}|\d{2})|(\d{4})[./-](\d{1,2}))$/;
const MONTHS = 12;
const CENTURY = 2000;

const wholeYear = (digits: string) => (digits.length === 2 ? CENTURY + Number(digits) : Number(digits));

function inMonth(year: number, month: number, end: MonthEnd): string | null {
  if (month < 1 || month > MONTHS) return null;
  const first = realDay(year, month, 1);
  return end === 'first' ? first : first && dayAfter(monthsAfter(first, 1), -1);
}

/**
 * Which stands first in a sheet's days, by those that can only be read one way; null where nothing tells.
 *
 * @example dayOrderOf(['3/4/2026', '3/25/2026']) // 'monthFirst'
 */
export function dayOrderOf(cells: readonly string[]): DayOrder | null {
  for (const cell of cells) {
    const [, a, mark, b] = FIGURES.exec(cell.trim()) ?? [];
    if (a === undefined) continue;
    if (mark === '.' || Number(a) > MONTHS) return 'dayFirst';
    if (Number(b) > MONTHS) return 'monthFirst';
  }
  return null;
}

/** Eight figures, or the year first with points and blanks, as some machines and countries write. */
const YEAR_FIRST = /^(\d{4})(?:\.\s*|\s+)?(\d{2}|\d{1,2}(?=\.))(?:\.\s*)?(\d{2}|\d{1,2}(?=\.))\.?$/;
/** Days since 30 December 1899, as spreadsheets count them: from 2000 to 2060. */
const SERIAL = /^\d{5}(?:\.\d+)?$/;
const SERIAL_ZERO = Date.UTC(1899, 11, 30);
const [FIRST_SERIAL, LAST_SERIAL] = [36_526, 58_440];
const DAY_MS = 86_400_000;

function bySerial(text: string): string | null {
  const count = SERIAL.test(text) ? Math.floor(Number(text)) : 0;
  if (count < FIRST_SERIAL || count > LAST_SERIAL) return null;
  return new Date(SERIAL_ZERO + count * DAY_MS).toISOString().slice(0, 10);
}

/** A time of day behind a day, as tills write it. */
const TIME_BEHIND = /(?:T|\s+)\d{1,2}[:.]\d{2}(?:[:.]\d{2})?.*$/;

/** A day without the time behind it. */
export const withoutTime = (cell: string): string => cell.trim().replace(TIME_BEHIND, '');

/**
 * Whether a column's days can be read two ways, and nothing in it tells which: then it is asked.
 *
 * @example isOrderOpen(['11/03/2026', '12/05/2026']) // true
 */
export function isOrderOpen(cells: readonly string[]): boolean {
  if (dayOrderOf(cells) !== null) return false;
  return cells.some((cell) => {
    const [, a, , b] = FIGURES.exec(cell.trim()) ?? [];
    return a !== undefined && Number(a) !== Number(b);
  });
}

/** What stands between the first and the last of several days. */
const UNTIL =
  /\s*[–—]\s*|\s+-\s+|\s+(?:to|till|until|bis|au|al|tot|t\/m)\s+|(?<=^\d{1,2}\.?)\s*-\s*(?=\d{1,2}\.?\s*\p{L})/u;

/** Whether a cell says from when to when: "5 Oct - 11 Oct", "5-11 October". */
function isSpan(text: string): boolean {
  const ends = text.split(UNTIL).filter((part) => /\d/.test(part));
  return ends.length > 1 && !ends.every((part) => /^\d+$/.test(part));
}

/**
 * The day a cell says; null for an empty one or a dash, an error in words for what is no day.
 *
 * @example readDay('4/3/2026', 'dayFirst', 'first') // '2026-03-04'
 * @example readDay('03/2027', 'dayFirst', 'last') // '2027-03-31'
 */
export function readDay(cell: string, order: DayOrder, end: MonthEnd): string | null | { error: string } {
  const text = cell.trim();
  if (text === '' || /^(?:[-–—?]|n\/?a|none)$/i.test(text)) return null;
  const error = { error: `“${cell}” is no day. Write it as 2026-03-14.` };
  if (isSpan(text)) return { error: `“${cell}” is more than one day. Write one, as 2026-03-14.` };
  const figures = FIGURES.exec(text);
  if (figures) {
    const [a, b] = [Number(figures[1]), Number(figures[3])];
    const year = wholeYear(figures[4]!);
    const isMonthFirst = figures[2] !== '.' && (b > MONTHS || (a <= MONTHS && order === 'monthFirst'));
    return (isMonthFirst ? realDay(year, a, b) : realDay(year, b, a)) ?? error;
  }
  const yearFirst = YEAR_FIRST.exec(text);
  if (yearFirst) {
    const [, year, month, date] = yearFirst.map(Number);
    return realDay(year!, month!, date!) ?? error;
  }
  const serial = bySerial(text);
  if (serial) return serial;
  const month = MONTH.exec(text);
  if (month) return inMonth(wholeYear(month[2] ?? month[3]!), Number(month[1] ?? month[4]), end) ?? error;
  // "03/Oct/2026": between words and figures a stroke is a blank.
  const found = findDay(text.replace(/(?<=\d)\/(?=\p{L})|(?<=\p{L})\/(?=\d)/gu, ' '));
  if (!found) return error;
  const isMonth = found.question !== null && found.day.endsWith('-01');
  const [year, number] = found.day.split('-').map(Number);
  return isMonth ? (inMonth(year!, number!, end) ?? error) : found.day;
}
