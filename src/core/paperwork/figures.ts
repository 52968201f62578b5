/** Figures as suppliers write them: shares, ranges, "<0.1", "n.d.", commas and points, CAS numbers. */
import { readNumber, type DecimalMark } from '../quantities/number';
import { ABSENT, plainText, TRACE } from './lexicon';
import { FOOTNOTE } from './raised';

/** A share in percent with both ends; a question where the maker has to look. */
export interface Figure {
  lowPct: number;
  typicalPct: number;
  highPct: number;
  question: string | null;
}

export type FigureUnit = '%' | 'ppm' | 'permille' | 'fraction';

/** How many of a unit are one percent. */
const PER_PERCENT: Record<FigureUnit, number> = { '%': 1, ppm: 10_000, permille: 10, fraction: 0.01 };
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

/**
 * The decimal mark of a paper, from figures that can be read one way only ("0,5", "12.75"). Numbers with a group
 * of exactly three digits behind the mark tell nothing, nor do days.
 */
export function decimalMarkOf(texts: Iterable<string>): DecimalMark {
  const votes = { ',': 0, '.': 0 };
  for (const text of texts) {
    const days = text.replace(/\d{1,4}[./-]\d{1,2}[./-]\d{1,4}/g, ' ');
    for (const [, mark] of days.matchAll(/(?<![\d.,])\d+([.,])(?:\d{1,2}|\d{4,})(?![\d.,])/g))
      votes[mark as ',' | '.']++;
    for (const [, mark] of days.matchAll(/(?<![\d.,])0([.,])\d+(?![\d.,])/g)) votes[mark as ',' | '.']++;
    // "1,000.5": what stands behind thousands parts the decimals.
    for (const [, mark] of days.matchAll(/(?<![\d.,])\d{1,3}(?:,\d{3})+(\.)\d+(?![\d.,])/g))
      votes[mark as '.']++;
    for (const [, mark] of days.matchAll(/(?<![\d.,])\d{1,3}(?:\.\d{3})+(,)\d+(?![\d.,])/g))
      votes[mark as ',']++;
  }
  if (votes[','] === votes['.']) return null;
  return votes[','] > votes['.'] ? ',' : '.';
}

/**
 * The decimal mark of a paper's parts of a million, where nothing else tells it: several figures with just three digits
 * behind the same mark are thousands; nobody writes each to a thousandth of a part. Null where that does not show.
 */
export function thousandsMarkOf(texts: Iterable<string>): DecimalMark {
  const marks = { ',': 0, '.': 0 };
  for (const text of texts)
    for (const [, mark] of text.matchAll(/(?<![\d.,])[1-9]\d{0,2}([.,])\d{3}(?![\d.,])/g))
      marks[mark as ',' | '.']++;
  if (marks[','] >= LEAST_THOUSANDS && marks['.'] === 0) return '.';
  return marks['.'] >= LEAST_THOUSANDS && marks[','] === 0 ? ',' : null;
}

const LEAST_THOUSANDS = 3;

const NUMBER = String.raw`\d{1,3}(?:[ '’.,]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)?|[.,]\d+`;
const BETWEEN = String.raw`(?:-|\.\.+|to|bis|a|al|tot|and|/)`;
const RANGE = new RegExp(`^(${NUMBER})\\s*${BETWEEN}\\s*(${NUMBER})$`);
const BELOW = new RegExp(
  `^(?:<=?|≤|max(?:imum|imal|imo|\\.)?|up to|less than|under|below|bis zu|bis|unter|weniger als|jusqu'a|moins de|inferieur a|hasta|menos de|fino a|meno di|inferiore a|tot|minder dan|hoogstens|hochstens)\\s*(${NUMBER})$`,
);
const ABOVE = new RegExp(
  `^(?:>=?|≥|min(?:imum|imo|\\.)?|over|more than|at least|mehr als|uber|mindestens|plus de|au moins|mas de|al menos|piu di|almeno|meer dan|minstens)\\s*(${NUMBER})$`,
);
const ABOUT = new RegExp(
  `^(?:ca\\.?|circa|approx\\.?|about|~|≈|±|etwa|environ|env\\.|aprox\\.?|ongeveer)\\s*(${NUMBER})$`,
);
const PLAIN = new RegExp(`^(${NUMBER})$`);
const LONE_GROUP = /^[1-9]\d{0,2}([.,])\d{3}$/;

interface Read {
  value: number;
  /** A mark with three digits behind it, and nothing tells thousands from decimals. */
  isUnsure: boolean;
}

/** One number; `mark` is the paper's decimal mark, where it shows one. */
function number(text: string, mark: DecimalMark, unit: FigureUnit): Read {
  // A share in percent never runs into thousands; in parts of a million it may, and where nothing tells it is asked.
  const lone = mark === null && unit !== '%' && unit !== 'fraction' ? LONE_GROUP.exec(text) : null;
  if (!lone) return { value: readNumber(text, mark), isUnsure: false };
  return { value: readNumber(text, lone[1] === ',' ? '.' : ','), isUnsure: true };
}

function unsureQuestion(text: string, reads: readonly Read[]): string | null {
  if (!reads.some(({ isUnsure }) => isUnsure)) return null;
  return `“${text}” was read as thousands. Is the mark before the last three digits a decimal one?`;
}

function figure(lowPct: number, typicalPct: number, highPct: number, question: string | null = null): Figure {
  return { lowPct, typicalPct, highPct, question };
}

/** A figure without its unit; null where it is none. */
function bareFigure(text: string, mark: DecimalMark, unit: FigureUnit): Figure | null {
  if (ABSENT.test(text)) return figure(0, 0, 0);
  if (TRACE.test(text)) return figure(0, 0, 0, '“Trace” is no figure. Type one, or leave the row out.');
  const read = (digits: string) => number(digits, mark, unit);
  const range = RANGE.exec(text);
  if (range) {
    const [low, high] = [read(range[1]!), read(range[2]!)];
    const question = unsureQuestion(text, [low, high]);
    if (low.value > high.value)
      return figure(
        high.value,
        (low.value + high.value) / 2,
        low.value,
        'The range runs from large to small. Is it read right?',
      );
    return figure(low.value, (low.value + high.value) / 2, high.value, question);
  }
  const below = BELOW.exec(text);
  if (below) {
    const most = read(below[1]!);
    return figure(0, most.value, most.value, unsureQuestion(text, [most]));
  }
  const above = ABOVE.exec(text);
  if (above) {
    const least = read(above[1]!).value;
    return figure(least, least, least, 'Only a least share is stated. Type the most it can be.');
  }
  const about = ABOUT.exec(text);
  if (about) {
    const { value } = read(about[1]!);
    return figure(value, value, value, 'Stated as “about”. Widen it to a range if you know one.');
  }
  const plain = PLAIN.exec(text);
  if (!plain) return null;
  const one = read(plain[1]!);
  return figure(one.value, one.value, one.value, unsureQuestion(text, [one]));
}

const UNITS: readonly (readonly [RegExp, FigureUnit])[] = [
  [/\s*(?:ppm|parts per million|mg\s?\/\s?kg|mg\.kg-1|µg\s?\/\s?g)$/, 'ppm'],
  [/\s*(?:‰|per mille?|promille|(?<!m)g\s?\/\s?kg|mg\s?\/\s?g|parts per thousand)$/, 'permille'],
  [/\s*(?:%\s*(?:\(?[wm]\s?\/\s?[wm]\)?)?|(?:gew|m)\.?-?\s?%|g\s?\/\s?100\s?g)$/, '%'],
];

/** The unit a head of a column or a line speaks of; null where none. */
export function unitIn(text: string): FigureUnit | null {
  const plain = plainText(text);
  if (
    /ppm|parts per million|mg\s?\/\s?kg|\bm(?:illi)?g(?:rams?)? per k(?:ilo)?(?:g(?:ram)?)?\b|\bmg (?:pro|par|por|per) kg\b/.test(
      plain,
    )
  )
    return 'ppm';
  if (/‰|\bper mille?\b|promille|g\s?\/\s?kg|mg\s?\/\s?g\b|parts per thousand|teile je tausend/.test(plain))
    return 'permille';
  return /%|g\s?\/\s?100\s?g|percent|prozent|pour ?cent|por ?ciento|percento|procent/.test(plain)
    ? '%'
    : null;
}

/**
 * Reads a share. A unit that stands beside the figure takes precedence over the column's. `mark` is the paper's
 * decimal mark. Null where the text is no figure at all.
 */
export function readFigure(text: string, columnUnit: FigureUnit, mark: DecimalMark = null): Figure | null {
  const plain = plainText(text)
    .replace(/[−–—‐]/g, '-')
    .replace(FOOTNOTE, '')
    .trim();
  const written = UNITS.find(([pattern]) => pattern.test(plain));
  const unit = written?.[1] ?? columnUnit;
  const bare = (written ? plain.replace(written[0], '') : plain)
    .replace(/\s*%\s*(?=-|to\b|bis\b|a\b|tot\b)/g, ' ')
    .trim();
  if (/^-+$/.test(bare) && !written)
    return figure(0, 0, 0, 'A dash stands here. Is there none, or was none looked for?');
  const read = bareFigure(bare, mark, unit);
  if (!read || Number.isNaN(read.typicalPct)) return null;
  const percent = (value: number) => Number((value / PER_PERCENT[unit]).toFixed(DECIMALS));
  const scaled = {
    ...read,
    lowPct: percent(read.lowPct),
    typicalPct: percent(read.typicalPct),
    highPct: percent(read.highPct),
  };
  if (scaled.highPct > 100) scaled.question = 'That is more than 100 %. Look at the paper.';
  return scaled;
}
