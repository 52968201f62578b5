/** Figures as suppliers write them: percents, ranges, "<0.1", "n.d.", decimal commas, dates, CAS numbers. */

/** A share in percent with both ends; a question where the maker has to look. */
export interface Figure {
  lowPct: number;
  typicalPct: number;
  highPct: number;
  question: string | null;
}

export type FigureUnit = '%' | 'ppm';

const PPM_PER_PERCENT = 10_000;
/** Shares are kept to this many decimals of a percent, finer than any paper states them. */
const DECIMALS = 6;

/** CAS numbers as written, whether or not their last digit checks. Parts of longer numbers are left out. */
export const CAS_PATTERN = /(?<![\d-])\d{2,7}-\d{2}-\d(?![\d-])/g;

/** Whether a CAS number's last digit checks the others. */
export function isCasNumber(cas: string): boolean {
  if (!/^\d{2,7}-\d{2}-\d$/.test(cas)) return false;
  const digits = cas.replace(/-/g, '');
  const body = [...digits.slice(0, -1)].reverse();
  const sum = body.reduce((total, digit, index) => total + Number(digit) * (index + 1), 0);
  return sum % 10 === Number(digits.at(-1));
}

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
const ABSENT = /^(?:n\.?\s?d\.?|not detected|not present|absent|none|nil|free|0(?:[.,]0+)?)$/i;
const TRACE = /^(?:traces?|tr\.?)$/i;
const RANGE = new RegExp(`^(${NUMBER})\\s*(?:-|to|\\.\\.)\\s*(${NUMBER})$`, 'i');
const BELOW = new RegExp(`^(?:<=?|≤|max\\.?|maximum|up to|less than|under)\\s*(${NUMBER})$`, 'i');
const ABOVE = new RegExp(`^(?:>=?|≥|min\\.?|over|more than)\\s*(${NUMBER})$`, 'i');
const ABOUT = new RegExp(`^(?:ca\\.?|circa|approx\\.?|about|~|±)\\s*(${NUMBER})$`, 'i');
const PLAIN = new RegExp(`^(${NUMBER})$`);
const THOUSANDS = /^\d{1,3},\d{3}$/;

function number(text: string): number {
  return Number(text.replace(',', '.'));
}

function figure(lowPct: number, typicalPct: number, highPct: number, question: string | null = null): Figure {
  return { lowPct, typicalPct, highPct, question };
}

/** A figure without its unit; null where it is none. */
function bareFigure(text: string): Figure | null {
  if (ABSENT.test(text)) return figure(0, 0, 0);
  if (TRACE.test(text)) return figure(0, 0, 0, '“Trace” is no figure. Type one, or leave the row out.');
  const range = RANGE.exec(text);
  if (range) {
    const [low, high] = [number(range[1]!), number(range[2]!)];
    if (low > high)
      return figure(high, (low + high) / 2, low, 'The range runs from large to small. Is it read right?');
    return figure(low, (low + high) / 2, high);
  }
  const below = BELOW.exec(text);
  if (below) return figure(0, number(below[1]!), number(below[1]!));
  const above = ABOVE.exec(text);
  if (above) {
    const least = number(above[1]!);
    return figure(least, least, least, 'Only a least share is stated. Type the most it can be.');
  }
  const about = ABOUT.exec(text);
  if (about) {
    const value = number(about[1]!);
    return figure(value, value, value, 'Stated as “about”. Widen it to a range if you know one.');
  }
  const plain = PLAIN.exec(text);
  return plain ? figure(number(plain[1]!), number(plain[1]!), number(plain[1]!)) : null;
}

/**
 * Reads a share. A unit that stands beside the figure takes precedence over the column's. Null where the text
 * is no figure at all.
 */
export function readFigure(text: string, columnUnit: FigureUnit): Figure | null {
  const plain = text
    .replace(/\u00a0/g, ' ')
    .replace(/[−–—]/g, '-')
    .trim();
  const written = /(%|ppm|mg\/kg)(?:\s*(?:w\/w|m\/m))?\s*$/i.exec(plain);
  const unit: FigureUnit = written ? (written[1] === '%' ? '%' : 'ppm') : columnUnit;
  const bare = (written ? plain.slice(0, written.index) : plain).replace(/\s*%\s*(?=-|to\b)/g, ' ').trim();
  if (bare === '-') return figure(0, 0, 0, 'A dash stands here. Is there none, or was none looked for?');
  const isThousands = unit === 'ppm' && THOUSANDS.test(bare);
  const read = bareFigure(isThousands ? bare.replace(',', '') : bare);
  if (!read) return null;
  if (isThousands) read.question = `“${bare}” was read as thousands. Is the comma a decimal one?`;
  const scale = unit === 'ppm' ? 1 / PPM_PER_PERCENT : 1;
  const percent = (value: number) => Number((value * scale).toFixed(DECIMALS));
  const scaled = {
    ...read,
    lowPct: percent(read.lowPct),
    typicalPct: percent(read.typicalPct),
    highPct: percent(read.highPct),
  };
  if (scaled.highPct > 100) scaled.question = 'That is more than 100 %. Look at the paper.';
  return scaled;
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

export interface DayFound {
  day: string;
  said: string;
  question: string | null;
}

function day(year: number, month: number, date: number): string | null {
  const made = new Date(Date.UTC(year, month - 1, date));
  if (made.getUTCMonth() !== month - 1 || made.getUTCDate() !== date) return null;
  return made.toISOString().slice(0, 10);
}

function monthNumber(name: string): number {
  return MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1;
}

/** The first day written in a text, in any of the usual ways; a slash date that reads both ways is asked about. */
export function findDay(text: string): DayFound | null {
  const found = (value: string | null, said: string, question: string | null = null) =>
    value === null ? null : { day: value, said, question };
  const iso = /\b(\d{4})-(\d{2})-(\d{2})\b/.exec(text);
  if (iso) return found(day(Number(iso[1]), Number(iso[2]), Number(iso[3])), iso[0]);
  const named = /\b(\d{1,2})(?:st|nd|rd|th)?\.?\s+([A-Za-z]{3,9})\.?,?\s+(\d{4})\b/.exec(text);
  if (named && monthNumber(named[2]!) > 0) {
    return found(day(Number(named[3]), monthNumber(named[2]!), Number(named[1])), named[0]);
  }
  const monthFirst = /\b([A-Za-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})\b/.exec(text);
  if (monthFirst && monthNumber(monthFirst[1]!) > 0) {
    return found(
      day(Number(monthFirst[3]), monthNumber(monthFirst[1]!), Number(monthFirst[2])),
      monthFirst[0],
    );
  }
  const slashed = /\b(\d{1,2})([./-])(\d{1,2})\2(\d{4})\b/.exec(text);
  if (!slashed) return null;
  const [said, first, mark, second, year] = slashed;
  const [a, b] = [Number(first), Number(second)];
  if (a > 12 || mark === '.') return found(day(Number(year), b, a), said!);
  if (b > 12) return found(day(Number(year), a, b), said!);
  const question = a === b ? null : `“${said}” was read with the day first. Is it the month?`;
  return found(day(Number(year), b, a), said!, question);
}
