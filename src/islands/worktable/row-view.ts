/**
 * What a row shows of its line, as it is shown: figures as they are read, lengths to a thousandth. So a row whose
 * picture stays the same is not drawn again, though its figures move in the tenth place.
 */
import type { TraitMaterial } from '../../core/formula/traits';
import { lineMarks, type LineMark } from '../../core/outlook/marks';
import type { AssessedLimit, AssessedLine, Assessment, Verdict } from '../../core/formula/answer';
import type { Amount, Formula, Line, RequestError } from '../../core/formula/types';
import { binds } from '../../core/loads/limits';
import { ADVICE_WORDS, grams, percent, VERDICT_WORDS } from '../../ui/words';
import {
  againstLimit,
  asMultiples,
  faultOfLine,
  governingLimit,
  isColour,
  othersShare,
  sourceOf,
  subjectName,
} from './view';

/** Largest loads are put in rounded down to this many decimals, so that rounding never lifts them over. */
const LARGEST_DECIMALS = 2;
const SPOONED = /^(?:tsp|tbsp|cup)/;
const SPOON_PARTS = 8;
/** Lengths are drawn to this many parts of the rule. */
const DRAWN_PARTS = 1000;

export interface RowAgainst {
  verdict: Verdict;
  words: string;
  isAdvice: boolean;
  said: string;
  source: string | null;
  /** In multiples of the limit; null where there is none to hold against. */
  load: { low: number; nominal: number; high: number } | null;
  others: number;
}

/** Lines that are more together than makers use: all of them in proportion. */
export interface Together {
  lines: string[];
  /** To so much of what each is, 0 to 1. */
  share: number;
}

export interface RowView {
  line: Line;
  name: string;
  open: boolean;
  fault: string | undefined;
  isScentLine: boolean;
  masses: { mass: string; cured: string; fats: string };
  room: { words: string; largest: Amount | null; advised: Amount | null; together: Together | null };
  against: RowAgainst | null;
  /** Share of a limit that the maker keeps free, 0 to 1. */
  margin: number;
  /** What the outlook minds of it. */
  marks: LineMark[];
}

export interface RowInput {
  line: Line;
  formula: Formula;
  assessment: Assessment;
  errors: readonly RequestError[];
  materialName: (id: string) => string;
  isScentLine: boolean;
  open: boolean;
  /** Null where it is not known here. */
  material: TraitMaterial | null;
  /** What age does to the bottle that would be taken; null for nothing. */
  old: string | null;
}

/** A largest load in the line's unit, rounded down; null where nothing holds it. */
function roundedLargest(largest: AssessedLine['maxInUnit']): Amount | null {
  if (!largest) return null;
  // Nobody holds 0.59 of a spoon: what is spooned is rounded down to the eighth.
  const step = SPOONED.test(largest.unit) ? SPOON_PARTS : 10 ** LARGEST_DECIMALS;
  return { value: Math.floor(largest.value * step) / step, unit: largest.unit };
}

/** What brings several lines that are past an advice together under it. */
function togetherOf(limit: AssessedLimit | null): Together | null {
  if (!limit || binds(limit.force) || limit.contributors.length < 2 || limit.nominalPct <= limit.maxPct)
    return null;
  const share = Math.floor((100 * limit.maxPct) / limit.highPct) / 100;
  return share > 0 ? { lines: limit.contributors.map(({ line }) => line), share } : null;
}

function roomOf(assessed: AssessedLine, limit: AssessedLimit | null): RowView['room'] {
  const largest = roundedLargest(assessed.maxInUnit);
  const within = roundedLargest(assessed.advised?.maxInUnit ?? null);
  const advised = within && (!largest || within.value < largest.value) ? within : null;
  const together = advised?.value === 0 ? togetherOf(limit) : null;
  if (assessed.maxG === null) {
    return { words: limit ? 'advice only' : 'no limit on file', largest: null, advised, together };
  }
  const roomG = assessed.maxG - assessed.massG;
  const words = roomG >= 0 ? `room ${grams(roomG)}` : `past by ${grams(-roomG)}`;
  return { words, largest, advised, together };
}

const drawn = (value: number) => Math.round(value * DRAWN_PARTS) / DRAWN_PARTS;

function againstOf({ line, assessment, materialName }: RowInput, limit: AssessedLimit | null) {
  const unproven = assessment.unproven.some((entry) => entry.line === line.id);
  const verdict = unproven && limit?.verdict !== 'over' ? 'unproven' : limit?.verdict;
  if (!verdict) return null;
  const isAdvice = limit !== null && !binds(limit.force) && verdict !== 'unproven';
  const words =
    limit && isColour(limit) ? 'Not on a market’s list' : (isAdvice ? ADVICE_WORDS : VERDICT_WORDS)[verdict];
  const multiples = unproven || !limit ? null : asMultiples(limit);
  return {
    verdict,
    words: limit?.portion ? `${words} in portion ${limit.portion}` : words,
    isAdvice,
    said: limit ? `${subjectName(limit, materialName)}: ${againstLimit(limit)}` : 'No certificate on file',
    source: limit && sourceOf(limit),
    load: multiples && {
      low: drawn(multiples.low),
      nominal: drawn(multiples.nominal),
      high: drawn(multiples.high),
    },
    others: limit ? drawn(othersShare(limit, line.id)) : 0,
  };
}

/** What the row of a line shows. */
export function rowView(input: RowInput): RowView {
  const { line, formula, assessment, errors, materialName, isScentLine, open, material, old } = input;
  const limit = governingLimit(assessment, line.id);
  const assessed = assessment.lines.find(({ id }) => id === line.id)!;
  return {
    line,
    name: materialName(line.material),
    open,
    fault: faultOfLine(errors, formula, line.id),
    isScentLine,
    masses: {
      mass: grams(assessed.massG),
      cured: percent(assessed.pctCured),
      fats: percent(assessed.pctFats),
    },
    room: roomOf(assessed, limit),
    against: againstOf(input, limit),
    margin: (formula.marginPct ?? 10) / 100,
    marks: material
      ? lineMarks(line, material, { pctFats: assessed.pctFats, usedOn: formula.usedOn ?? 'body', old })
      : [],
  };
}

/** Whether two values of plain data are the same; the first difference ends it. */
export function sameView(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  return keys.every((key) =>
    sameView((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
  );
}
