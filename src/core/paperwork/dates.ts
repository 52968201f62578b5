/** Days as papers write them, in six languages. */
import { realDay } from '../quantities/day';
import { plainText } from './lexicon';

/** Which stands first where a day is written in figures alone. */
export type DayOrder = 'dayFirst' | 'monthFirst';

export interface DayFound {
  /** YYYY-MM-DD. */
  day: string;
  said: string;
  question: string | null;
}

/** How each month begins in any of the languages. */
const MONTHS: readonly RegExp[] = [
  /^(?:jan|janv|ene|gen|stycz)/,
  /^(?:feb|fev|febr|lut)/,
  /^(?:mar|mrz|maar|mrt|marz)/,
  /^(?:apr|avr|abr|kwie)/,
  /^(?:may|mai|mag|mei|maj)/,
  /^(?:jun|juin|giu|czer)/,
  /^(?:jul|juil|lug|lip)/,
  /^(?:aug|aou|ago|sier)/,
  /^(?:sep|set|wrze)/,
  /^(?:oct|okt|ott|out|paz)/,
  /^(?:nov|listop)/,
  /^(?:dec|dez|dic|grud)/,
];
const WHOLE_MONTH =
  /^(?:january|february|march|april|may|june|july|august|september|october|november|december|janua?r|februar|marz|mai|juni|juli|oktober|dezember|janvier|fevrier|mars|avril|juin|juillet|aout|septembre|octobre|novembre|decembre|enero|febrero|marzo|abril|mayo|junio|julio|agosto|septiembre|setiembre|octubre|noviembre|diciembre|gennaio|febbraio|aprile|maggio|giugno|luglio|settembre|ottobre|dicembre|januari|februari|maart|mei|augustus|december|stycz(?:en|nia)|lut(?:y|ego)|mar(?:zec|ca)|kwie(?:cien|tnia)|maja|czerw(?:iec|ca)|lip(?:iec|ca)|sierp(?:ien|nia)|wrze(?:sien|snia)|pazdziernika?|listopada?|grud(?:zien|nia)|[a-z]{3,4}|janv|juil|febr|sept|janeiro|fevereiro|marco|maio|junho|julho|setembro|outubro|novembro|dezembro)$/;

function monthNumber(word: string): number {
  const bare = word.replace(/\.$/, '');
  return WHOLE_MONTH.test(bare) ? MONTHS.findIndex((month) => month.test(bare)) + 1 : 0;
}

const EARLIEST_YEAR = 1990;
const LATEST_YEAR = 2060;

function fullYear(text: string): number {
  return text.length === 2 ? 2000 + Number(text) : Number(text);
}

function iso(year: number, month: number, date: number): string | null {
  return year >= EARLIEST_YEAR && year <= LATEST_YEAR ? realDay(year, month, date) : null;
}

type Reader = (match: RegExpExecArray, order: DayOrder | null) => { day: string | null; question?: string };

const WORD = '[a-z]{3,12}\\.?';
const OF = "(?:\\s+(?:de|di|del|of|d'))?";

/**
 * A slash or dash date that reads both ways is asked about where nothing else says the order; a dot stands between day and
 * month first.
 */
const byNumbers: Reader = ([said, first, mark, second, year], order) => {
  const [a, b, whole] = [Number(first), Number(second), fullYear(year!)];
  if (mark === '.' || a > 12) return { day: iso(whole, b, a) };
  if (b > 12) return { day: iso(whole, a, b) };
  if (order === 'monthFirst') return { day: iso(whole, a, b) };
  const question = a === b || order ? undefined : `“${said}” was read with the day first. Is it the month?`;
  return { day: iso(whole, b, a), question };
};

const READERS: readonly (readonly [RegExp, Reader])[] = [
  [
    /\b(\d{4})([-/.])(\d{1,2})\2(\d{1,2})\b/,
    ([, y, , m, d]) => ({ day: iso(Number(y), Number(m), Number(d)) }),
  ],
  [
    new RegExp(
      `\\b(\\d{1,2})(?:st|nd|rd|th|er|[°º.])?[-\\s]*${OF}\\s*(${WORD})${OF}[-,\\s]*(\\d{4}|\\d{2})\\b`,
    ),
    ([, d, m, y]) => ({ day: iso(fullYear(y!), monthNumber(m!), Number(d)) }),
  ],
  [
    new RegExp(`\\b(${WORD})[-\\s]+(\\d{1,2})(?:st|nd|rd|th)?[-,\\s]+(\\d{4})\\b`),
    ([, m, d, y]) => ({ day: iso(Number(y), monthNumber(m!), Number(d)) }),
  ],
  [/\b(\d{1,2})([./-])(\d{1,2})\2(\d{4}|\d{2})\b/, byNumbers],
  [
    new RegExp(`(?<!\\d{1,2}(?:st|nd|rd|th|\\.)?[-\\s]{1,2})\\b(${WORD})${OF}[-,\\s]+(\\d{4})\\b`),
    ([said, m, y]) => ({
      day: iso(Number(y), monthNumber(m!), 1),
      question: `Only “${said}” is stated; the first of the month was taken.`,
    }),
  ],
];

const FIRST_WORD = /^\w+/;

const FIGURES = /\b(\d{1,2})[/-](\d{1,2})[/-](?:\d{4}|\d{2})\b/g;
const SAYS_DAY_FIRST =
  /\b(?:dd?|tt?|jj|gg?)[/.-]mm?[/.-](?:yy|aa|jj|rr)|\bday[/ -]month[/ -]year|\bjour[/ -]mois|\btag[/ -]monat/;
const SAYS_MONTH_FIRST = /\bmm?[/.-]dd?[/.-]yy|\bmonth[/ -]day[/ -]year/;

/** Words of papers in other languages than English, which write the day first. */
const NOT_ENGLISH =
  /\b(?:conforme|conformite|amendement|attestation de|etablie? le|kategorie|zertifikat|konformitat\w*|ausgestellt|datum|categorie|categoria|conformidad|emendamento|enmienda|conformita|certificado|certificato|kategoria|wydania|verklaring|afgifte\w*)\b/;

/**
 * What stands first in the days of a paper, by what it says of them, by days that read one way only, or by its language:
 * in all but English the day does. Null where nothing tells, or where its days disagree.
 *
 * @example dayOrderIn('Issued 01/07/2026, expires 31/12/2028', 'eng') // 'dayFirst'
 */
export function dayOrderIn(text: string, language: string | null): DayOrder | null {
  const plain = plainText(text);
  if (SAYS_DAY_FIRST.test(plain)) return 'dayFirst';
  if (SAYS_MONTH_FIRST.test(plain)) return 'monthFirst';
  const isLate = (figure: number) => figure > 12 && figure <= 31;
  const days = [...plain.matchAll(FIGURES)].map(([, a, b]) => [Number(a), Number(b)] as const);
  const [isDay, isMonth] = [
    days.some(([a, b]) => isLate(a) && b <= 12),
    days.some(([a, b]) => isLate(b) && a <= 12),
  ];
  if (isDay !== isMonth) return isDay ? 'dayFirst' : 'monthFirst';
  if (isDay || language === 'eng') return null;
  return language !== null || NOT_ENGLISH.test(plain) ? 'dayFirst' : null;
}

/**
 * The first day written in a text, in any of the usual ways; null where none is.
 *
 * @example findDay('Date of issue: 12 March 2026').day // '2026-03-12'
 */
export function findDay(text: string, order: DayOrder | null = null): DayFound | null {
  const plain = plainText(text);
  for (const [pattern, read] of READERS) {
    // What only looks like a day may hold the beginning of one: "category 9. Signed 21 June 2026".
    let from = 0;
    for (let match; (match = pattern.exec(plain.slice(from)));) {
      const { day, question } = read(match, order);
      const at = from + match.index;
      if (day) return { day, said: text.slice(at, at + match[0].length), question: question ?? null };
      from = at + FIRST_WORD.exec(match[0])![0].length;
    }
  }
  return null;
}
