/** Days as a question says them: "since September", "in 2026", "last week", "before 3 May", "this month". Pure. */
import { dayAfter, monthsAfter } from '../quantities/day';

export interface Days {
  /** First and last day, both counting; null where there is none. */
  from: string | null;
  to: string | null;
  /** Words that said it. */
  words: number;
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const WHOLE_MONTH =
  /^(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)$/;
const SINCE = new Set(['since', 'from', 'after']);
const UNTIL = new Set(['before', 'until', 'till', 'by']);
const WITHIN = new Set(['in', 'during', 'on']);

type Span = readonly [from: string, to: string, words: number];

const monthEnd = (month: string) => dayAfter(monthsAfter(`${month}-01`, 1), -1);
const ofMonth = (month: string, words: number): Span => [`${month}-01`, monthEnd(month), words];

/** The last such month that is not still to come, or that of a year. */
function monthSaid(words: readonly string[], at: number, today: string): Span | null {
  if (!WHOLE_MONTH.test(words[at] ?? '')) return null;
  const month = String(MONTHS.indexOf(words[at]!.slice(0, 3)) + 1).padStart(2, '0');
  const year = /^20\d\d$/.exec(words[at + 1] ?? '')?.[0];
  if (year) return ofMonth(`${year}-${month}`, 2);
  const thisYear = today.slice(0, 4);
  const isToCome = `${thisYear}-${month}` > today.slice(0, 7);
  return ofMonth(`${isToCome ? Number(thisYear) - 1 : thisYear}-${month}`, 1);
}

/** "3 May", "May 3", with a year or without. */
function daySaid(words: readonly string[], today: string): Span | null {
  const iso = /^(20\d\d-\d\d-\d\d)$/.exec(words[0] ?? '');
  if (iso) return [iso[1]!, iso[1]!, 1];
  const numberFirst = /^\d{1,2}(?:st|nd|rd|th)?$/.test(words[0] ?? '');
  const [dayAt, monthAt] = numberFirst ? [0, 1] : [1, 0];
  const date = Number.parseInt(words[dayAt] ?? '', 10);
  if (!(date >= 1 && date <= 31) || !/^\d{1,2}(?:st|nd|rd|th)?$/.test(words[dayAt] ?? '')) return null;
  const year = /^20\d\d$/.test(words[2] ?? '') ? [words[2]!] : [];
  const month = monthSaid([words[monthAt] ?? '', ...year], 0, today);
  if (!month) return null;
  const day = `${month[0].slice(0, 8)}${String(date).padStart(2, '0')}`;
  return day > month[1] ? null : [day, day, 2 + year.length];
}

function spanOf(words: readonly string[], today: string): Span | null {
  const [first, second] = words;
  if (first === 'today') return [today, today, 1];
  if (first === 'yesterday') return [dayAfter(today, -1), dayAfter(today, -1), 1];
  if (first === 'this' && second === 'month') return ofMonth(today.slice(0, 7), 2);
  if (first === 'this' && second === 'year')
    return [`${today.slice(0, 4)}-01-01`, `${today.slice(0, 4)}-12-31`, 2];
  if (first === 'last' && second === 'month')
    return ofMonth(monthsAfter(`${today.slice(0, 7)}-01`, -1).slice(0, 7), 2);
  if (first === 'last' && second === 'week') return [dayAfter(today, -7), today, 2];
  if (first === 'last' && second === 'year') {
    const year = Number(today.slice(0, 4)) - 1;
    return [`${year}-01-01`, `${year}-12-31`, 2];
  }
  const day = daySaid(words, today);
  if (day) return day;
  const month = monthSaid(words, 0, today);
  if (month) return month;
  return /^20\d\d$/.test(first ?? '') ? [`${first}-01-01`, `${first}-12-31`, 1] : null;
}

/**
 * The days at the beginning of some words; null where they say none. "Since September" holds the whole of it, "after 3
 * May" not that day.
 *
 * @example readDays(['since', 'september'], '2026-11-24') // { from: '2026-09-01', to: null, words: 2 }
 */
export function readDays(words: readonly string[], today: string): Days | null {
  const lead = words[0] ?? '';
  const isLed = SINCE.has(lead) || UNTIL.has(lead) || WITHIN.has(lead);
  const span = spanOf(
    words.slice(isLed ? 1 : 0).filter((word) => word !== 'the'),
    today,
  );
  if (!span) return null;
  const [from, to, count] = span;
  const said = count + (isLed ? 1 : 0);
  if (lead === 'after') return { from: dayAfter(to, 1), to: null, words: said };
  if (SINCE.has(lead)) return { from, to: null, words: said };
  if (lead === 'before') return { from: null, to: dayAfter(from, -1), words: said };
  if (UNTIL.has(lead)) return { from: null, to, words: said };
  return { from, to, words: said };
}
