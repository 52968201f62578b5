/** Holds a reading against the truth, field by field: right, missing, wrong with a question, wrong without one. */
import type { PaperReading } from '../../src/core/paperwork/read';
import { statedLevels, statedRow, type MadePaper } from './layouts';

export type Outcome = 'right' | 'missing' | 'asked' | 'silent';
export interface Mark {
  field: string;
  outcome: Outcome;
  wanted: string;
  got: string;
}

const NEAR = 1e-6;
const near = (a: number, b: number) => Math.abs(a - b) <= NEAR * Math.max(1, Math.abs(b));
const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

function outcome(isRight: boolean, isThere: boolean, question: string | null): Outcome {
  if (!isThere) return 'missing';
  if (isRight) return 'right';
  return question ? 'asked' : 'silent';
}

type TakenText = { value: string | number; question: string | null } | null | undefined;

function text(field: string, wanted: string | number, taken: TakenText): Mark {
  const isRight = taken != null && plain(String(taken.value)) === plain(String(wanted));
  return {
    field,
    outcome: outcome(isRight, taken != null, taken?.question ?? null),
    wanted: String(wanted),
    got: String(taken?.value ?? ''),
  };
}

const ordinal = (n: number) =>
  `${n}${['th', 'st', 'nd', 'rd'][n % 10 > 3 || (n > 10 && n < 14) ? 0 : n % 10]}`;

/** Every mark of one paper. */
export function marksOf(paper: MadePaper, reading: PaperReading): Mark[] {
  const { truth, categoryLayout, rowLayout } = paper;
  const marks: Mark[] = [
    text('material', truth.material, reading.material),
    text('number', truth.number, reading.number),
    text('issuer', truth.issuer, reading.issuer),
    text('issuedOn', truth.issuedOn, reading.issuedOn),
  ];
  if (categoryLayout) marks.push(text('edition', ordinal(truth.edition), reading.edition));
  const levels = categoryLayout
    ? statedLevels(truth, categoryLayout).filter(
        ([category]) => categoryLayout !== 'sentences' || category === '9',
      )
    : [];
  for (const [category, maxPct] of levels) {
    const found = reading.categories.find(({ value }) => value.category === category);
    const field = category === '9' ? 'nine' : 'category';
    const isRight = found !== undefined && near(found.value.maxPct, maxPct);
    marks.push({
      field,
      outcome: outcome(isRight, found !== undefined, found?.question ?? null),
      wanted: `${category} ${maxPct}`,
      got: String(found?.value.maxPct ?? ''),
    });
  }
  for (const { value, question } of reading.categories) {
    if (!levels.some(([category]) => category === value.category))
      marks.push({
        field: 'category',
        outcome: question ? 'asked' : 'silent',
        wanted: 'none',
        got: JSON.stringify(value),
      });
  }
  if (!rowLayout) return marks;
  for (const row of truth.rows.map((one) => statedRow(one, rowLayout))) {
    const found = reading.rows.find(({ cas }) => cas.includes(row.cas[0]!));
    const isRight =
      found !== undefined &&
      near(found.lowPct, row.low) &&
      near(found.typicalPct, row.typical) &&
      near(found.highPct, row.high) &&
      found.constituent === row.id;
    marks.push({
      field: 'row',
      outcome: outcome(isRight, found !== undefined, found?.question ?? null),
      wanted: `${row.name} ${row.low} ${row.typical} ${row.high}`,
      got: found
        ? `${found.name} ${found.constituent} ${found.lowPct} ${found.typicalPct} ${found.highPct}`
        : '',
    });
  }
  return marks;
}

export type Tally = Map<string, Record<Outcome, number>>;

export function tally(marks: readonly Mark[], into: Tally = new Map()): Tally {
  for (const { field, outcome: how } of marks) {
    const row = into.get(field) ?? { right: 0, missing: 0, asked: 0, silent: 0 };
    row[how]++;
    into.set(field, row);
  }
  return into;
}
