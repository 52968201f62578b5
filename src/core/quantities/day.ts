/**
 * A day, a moment and the house's zone, in one home. A moment is ISO 8601 with an offset and may come from any device;
 * a day is YYYY-MM-DD and is always the house's: the day on which that moment falls in its zone. Moments are compared
 * here, never as texts: two devices write the same moment with different offsets.
 */
import {
  CalendarDate,
  DateFormatter,
  fromAbsolute,
  parseDate,
  parseTime,
  toCalendarDate,
  toCalendarDateTime,
  toTime,
  toZoned,
} from '@internationalized/date';

export const MS_PER_HOUR = 3_600_000;
export const MS_PER_DAY = 24 * MS_PER_HOUR;
const LONGEST_ZONE = 64;

/** The zone of this machine, by its IANA name. */
export const machineZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/** Whether a text names a zone of the IANA database, such as "Europe/Berlin"; bare offsets do not. */
export function isZone(zone: unknown): zone is string {
  if (typeof zone !== 'string' || zone.length > LONGEST_ZONE || !/^[A-Za-z]/.test(zone)) return false;
  try {
    return new DateFormatter('en', { timeZone: zone }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

const within = (at: string, zone: string) => fromAbsolute(Date.parse(at), zone);

/**
 * The day of a moment in a zone.
 *
 * @example
 * dayOf('2026-11-29T23:30:00Z', 'Europe/Berlin') // '2026-11-30'
 */
export const dayOf = (at: string, zone: string): string => toCalendarDate(within(at, zone)).toString();

/** The clock of a moment in a zone, "07:05". */
export const clockOf = (at: string, zone: string): string => toTime(within(at, zone)).toString().slice(0, 5);

/** The moment, in UTC, at which the clock of a zone says a time on a day; "12:00" where none is given. */
export const momentOn = (day: string, zone: string, clock = '12:00'): string =>
  toZoned(toCalendarDateTime(parseDate(day), parseTime(clock)), zone).toAbsoluteString();

/** The day of the week that a day is, 0 for Sunday. */
export const weekdayOf = (day: string): number => new Date(`${day}T00:00:00Z`).getUTCDay();

/** Whether one moment lies before another. */
export const isBefore = (one: string, other: string): boolean => Date.parse(one) < Date.parse(other);

/** Orders moments, earliest first. */
export const byMoment = (one: string, other: string): number => Date.parse(one) - Date.parse(other);

/** The later of two moments. */
export const laterOf = (one: string, other: string): string => (isBefore(one, other) ? other : one);

/** Whole days from one day to another. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / MS_PER_DAY);

/** A day so many days on; before it where they are negative. */
export const dayAfter = (day: string, days: number): string => parseDate(day).add({ days }).toString();

/** The day so many months on; the last of that month where it has no such day: 31 January and one month is 28 February. */
export const monthsAfter = (day: string, months: number): string => parseDate(day).add({ months }).toString();

/** A day of a calendar, or null where there is none: 30 February, month 13. */
export function realDay(year: number, month: number, date: number): string | null {
  const made = new CalendarDate(year, month, date);
  return made.year === year && made.month === month && made.day === date ? made.toString() : null;
}
