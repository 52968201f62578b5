/** The level beside a category: a figure with its unit, not permitted, not restricted, or what has to be asked about. */
import type { DecimalMark } from '../quantities/number';
import { readFigure, unitIn, type FigureUnit } from './figures';
import { FORBIDDEN, FRACTION_WORD, FREE, MEANINGLESS, OPEN_LEVEL, plainText, SEE_NOTE } from './lexicon';
import { lineText, type Paper } from './page';

export interface Ways {
  mark: DecimalMark;
  /** The mark where levels are parts of a million, which run into thousands. */
  ppmMark: DecimalMark;
  unit: FigureUnit;
}

export interface Level {
  /** Percent; 0 is not permitted, 100 not restricted. */
  maxPct: number;
  question: string | null;
}

/** A level; `none` where the category does not apply, `open` where something stands there that is no level by itself. */
export type ReadLevel = Level | 'none' | 'open';

const sure = (maxPct: number): Level => ({ maxPct, question: null });

/** Reads a text that is a level and nothing else; null where it is none. */
export function readLevel(text: string, { mark, ppmMark, unit }: Ways): ReadLevel | null {
  const plain = plainText(text)
    .replace(/[*†]+$/, '')
    .trim();
  if (MEANINGLESS.test(plain)) return 'none';
  if (FORBIDDEN.test(plain)) return sure(0);
  if (FREE.test(plain)) return sure(100);
  if (OPEN_LEVEL.test(plain) || SEE_NOTE.test(plain)) return 'open';
  const isPpm = (unitIn(plain) ?? unit) === 'ppm';
  const bare = plain.replace(/^(?:max(?:imum|imo|\.)?|<=?|≤)\s*:?\s*/, '');
  const figure = readFigure(bare, unit, isPpm ? (mark ?? ppmMark) : mark);
  if (!figure) return null;
  // A span of doses is no maximum.
  if (figure.lowPct > 0 && figure.lowPct < figure.highPct) return 'open';
  if (figure.lowPct !== figure.highPct) return null;
  if (figure.highPct > 100) return 'open';
  // A mark before three digits is asked about; a dash, a trace, "about" are no level.
  const isThousands = figure.question?.includes('thousands') ?? false;
  if (figure.question !== null && !isThousands) return null;
  return { maxPct: figure.highPct, question: figure.question };
}

/** Whether a text is a level of any kind. */
export const isLevel = (text: string, ways: Ways): boolean => readLevel(text, ways) !== null;

/** A figure with its unit behind it, in running text. */
export const WITH_UNIT = String.raw`(\d[\d.,]*)\s*(%|ppm|mg\s?\/\s?kg|g\s?\/\s?kg|‰|per ?cent\b|prozent\b|pour ?cent\b|per mille?\b|promille\b|parts per (?:thousand|million)\b)`;
const AT_END = new RegExp(
  `(?:^|[\\s:=–(])((?:max\\.?\\s*)?${WITH_UNIT}|not permitted|no(?:t)? restrict\\w*)\\)?(?:\\s*\\(?w\\s?\\/\\s?w\\)?)?\\.?$`,
);

/** A figure without its unit, behind a colon, in a list of levels: "Bar soap, bath: 0.85". */
const BARE_AT_END = /[\p{L})]\s*[:=]\s*(\d[\d.,]*)$/u;

/** The level of a figure and the unit that stands behind it. */
export function levelWithUnit(figure: string, unit: string, ways: Ways): ReadLevel | null {
  return readLevel(`${figure} ${/^(?:%|per ?cent|prozent|pour)/.test(unit) ? '%' : unit}`, {
    ...ways,
    unit: '%',
  });
}

/** What stood there once, behind what stands there now: "(previously 3.1 %)". */
const EARLIER =
  /[\s,;([–-]*\b(?:previously|formerly|before|earlier|was|were|old|instead of|replacing|bisher|vorher|fruher|zuvor|statt|auparavant|precedemment|avant|antes|anteriormente|prima|precedentemente|voorheen|eerder|poprzednio)\b[^)\]]*[)\]]?\s*\.?$/;
const ALL_FIGURES = new RegExp(WITH_UNIT, 'g');
const ANOTHER = 'Another figure stands beside this level. Is this the maximum?';

/** The level at the end of a text that goes on after its category. */
export function levelAtEnd(text: string, ways: Ways): ReadLevel | null {
  const rest = text.replace(/^[\s:=.–-]+/, '').trim();
  const whole = readLevel(rest, ways);
  if (whole !== null) return whole;
  const plain = plainText(rest);
  const now = plain.replace(EARLIER, '');
  const tail = AT_END.exec(now) ?? AT_END.exec(plain) ?? BARE_AT_END.exec(plain);
  const level = tail && readLevel(tail[1]!, ways);
  if (!level || typeof level === 'string' || level.question) return level;
  const figures = new Set(plain.match(ALL_FIGURES));
  return figures.size > 1 ? { ...level, question: ANOTHER } : level;
}

/** The unit of levels that a text speaks of: parts of one, a million, a thousand or a hundred; null where of none. */
export function levelUnit(text: string): FigureUnit | null {
  const plain = plainText(text);
  if (FRACTION_WORD.test(plain) || (/\bfra[ck][a-z]*\b/.test(plain) && !plain.includes('%')))
    return 'fraction';
  return unitIn(plain);
}

const NOTE = String.raw`(?:note|footnote|remark|fussnote|anmerkung|nota|noot|opmerking|uwaga)?\s*`;

/** The level that a note of the paper gives, with the note to be looked at; `open` where it gives none. */
export function levelInNote(paper: Paper, text: string, ways: Ways): ReadLevel {
  const [, number] = SEE_NOTE.exec(plainText(text)) ?? [];
  if (!number) return 'open';
  const begins = new RegExp(`^${NOTE}[(\\[]?${number}[)\\]]?\\s*[:.)-]?\\s+(?=\\D|\\d)`);
  for (const line of paper.lines) {
    const plain = plainText(lineText(line));
    if (!begins.test(plain) || SEE_NOTE.test(plain)) continue;
    const found = new RegExp(WITH_UNIT).exec(plain.replace(begins, ''));
    const level = found && levelWithUnit(found[1]!, found[2]!, ways);
    if (level && typeof level === 'object')
      return {
        ...level,
        question: `Stands in note ${number}: “${lineText(line)}”. Is what it asks for met?`,
      };
  }
  return 'open';
}
