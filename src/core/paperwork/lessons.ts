/**
 * What a maker taught the reader: where, on papers laid out like one that was corrected, a field stands. A lesson
 * never decides; what it gives is asked about, "as you read it last time".
 */
import { readNumber } from '../quantities/number';
import type { CategoryMax } from './category-checks';
import { findDay } from './dates';
import { ordinal, type PaperFields } from './fields';
import type { Taken } from './labelled';
import { readFigure } from './figures';
import { plainText } from './lexicon';
import type { Cell, Paper, PaperLine } from './page';

export const LESSON_FIELDS = [
  'number',
  'issuer',
  'issuedOn',
  'edition',
  'maxPct',
  'flashPointC',
  'vanillinPct',
] as const;
export type LessonField = (typeof LESSON_FIELDS)[number];

/** Where a value stands to its label: in the same cell, so many cells to the right, or in the line below. */
export const LESSON_PLACES = ['behind', 'beside', 'below', 'always'] as const;

export interface Lesson {
  field: LessonField;
  /** Words by which the layout is known again. */
  marks: string[];
  place: (typeof LESSON_PLACES)[number];
  /** The label as plain text; for `always` the value itself. */
  label: string;
  /** Cells from the label to the value, for `beside`. */
  step: number;
  /** Number of the paper it was taught on. */
  learntFrom: string;
}

/** Lines that a layout is known by. */
const LAYOUT_LINES = 60;
const MOST_MARKS = 80;
/** Share of the words of two layouts that must be common to both. */
const SAME_LAYOUT = 0.5;
/** Lines looked through for a label. */
const MOST_LINES = 1500;
const MOST_LESSONS = 200;
const SAME_COLUMN_PT = 14;
export const LONGEST_LABEL = 80;

/** The words of a paper that do not change from one material to the next. */
export function layoutMarks(paper: Paper): string[] {
  const marks = new Set<string>();
  for (const { cells } of paper.lines.slice(0, LAYOUT_LINES)) {
    for (const { text } of cells) {
      const lead = plainText(/^[^:]{3,40}:/.exec(text)?.[0] ?? text).replace(/:$/, '');
      if (/^[^\d]{3,40}$/.test(lead) && /[a-z]{3}/.test(lead)) marks.add(lead.trim());
    }
  }
  return [...marks].slice(0, MOST_MARKS);
}

function isSameLayout(a: readonly string[], b: readonly string[]): boolean {
  const of = new Set(b);
  const common = a.filter((mark) => of.has(mark)).length;
  return common > 0 && common / (a.length + b.length - common) >= SAME_LAYOUT;
}

/** What a text says for a field, as the field is written; null where it says nothing. */
function valueIn(field: LessonField, text: string): string | null {
  switch (field) {
    case 'issuedOn':
      return findDay(text)?.day ?? null;
    case 'edition': {
      const digits = /(?<!\d)\d{2}(?!\d)/.exec(text)?.[0];
      return digits ? ordinal(Number(digits)) : null;
    }
    case 'maxPct':
    case 'vanillinPct': {
      const figure = readFigure(text, '%');
      return figure ? String(figure.highPct) : null;
    }
    case 'flashPointC': {
      const digits = /-?\d+(?:[.,]\d+)?/.exec(text)?.[0];
      return digits ? String(readNumber(digits)) : null;
    }
    case 'number':
    case 'issuer':
      return text.split(/\s{2,}|[,;]\s/)[0]!.trim() || null;
  }
}

const isLabelLike = (text: string) => /\p{L}{2}/u.test(text) && text.length <= LONGEST_LABEL;
const asLabel = (text: string) =>
  plainText(text)
    .replace(/[\s:.#-]+$/, '')
    .trim();

/** The head a cell stands under: the line above holds as many cells and no figure, so that it heads a table. */
function headOf(lines: readonly PaperLine[], at: number, cell: Cell): Cell | undefined {
  const heads = lines[at - 1]?.cells ?? [];
  if (
    heads.length < 2 ||
    heads.length !== lines[at]!.cells.length ||
    heads.some(({ text }) => /\d/.test(text))
  )
    return undefined;
  return heads.find(({ xPt }) => Math.abs(xPt - cell.xPt) < SAME_COLUMN_PT);
}

type Way = Pick<Lesson, 'place' | 'label' | 'step'>;

/** Where in a line a value stands to a label before it, in its own cell or further left. */
function wayInLine(field: LessonField, line: PaperLine, at: number, value: string): Way | null {
  const { text } = line.cells[at]!;
  const inside = /^(.*?\p{L}{2,}[^\p{L}\d]*?(?:[:#=]|\s-)\s*)(\S.*)$/u.exec(text);
  if (inside && valueIn(field, inside[2]!) === value && isLabelLike(inside[1]!))
    return { place: 'behind', label: asLabel(inside[1]!), step: 0 };
  if (valueIn(field, text) !== value) return null;
  for (let left = at - 1; left >= 0; left--) {
    const label = line.cells[left]!.text;
    if (isLabelLike(label) && valueIn(field, label) !== value)
      return { place: 'beside', label: asLabel(label), step: at - left };
  }
  return null;
}

/**
 * The lesson in a correction: where on the paper the value stands that the maker put in. Null where it stands
 * nowhere beside a label; an issuer that is nowhere on the paper is then known by the layout alone.
 */
export function lessonFrom(
  paper: Paper,
  field: LessonField,
  value: string,
  learntFrom: string,
): Lesson | null {
  const common = { field, marks: layoutMarks(paper), learntFrom };
  if (common.marks.length === 0) return null;
  const wanted = value.trim();
  const lines = paper.lines.slice(0, MOST_LINES);
  const ways: Way[] = [];
  for (const [at, line] of lines.entries()) {
    for (const [place, cell] of line.cells.entries()) {
      const beside = wayInLine(field, line, place, wanted);
      const head = headOf(lines, at, cell);
      const isUnder = head && valueIn(field, cell.text) === wanted && isLabelLike(head.text);
      const under: Way | null = isUnder ? { place: 'below', label: asLabel(head.text), step: 0 } : null;
      // A maximum belongs to its row's category; anything else under a row of heads belongs to its head.
      const [way, other] = field === 'maxPct' ? [beside, under] : [under, beside];
      if (way ?? other) ways.push((way ?? other)!);
    }
  }
  const best = ways.find(({ label }) => label !== '');
  if (best) return { ...common, ...best };
  return field === 'issuer' ? { ...common, place: 'always', label: wanted, step: 0 } : null;
}

interface Told {
  value: string;
  line: number;
  said: string;
}

function told(paper: Paper, lesson: Lesson): Told | null {
  if (lesson.place === 'always') return { value: lesson.label, line: 0, said: lesson.label };
  const lines = paper.lines.slice(0, MOST_LINES);
  for (const [at, line] of lines.entries()) {
    for (const [place, cell] of line.cells.entries()) {
      if (!plainText(cell.text).trim().startsWith(lesson.label)) continue;
      const found = valueAt(lesson, lines, at, place);
      if (found) return found;
    }
  }
  return null;
}

function valueAt(lesson: Lesson, lines: readonly PaperLine[], at: number, place: number): Told | null {
  const line = lines[at]!;
  const cell = line.cells[place]!;
  if (lesson.place === 'behind') {
    const value = valueIn(lesson.field, cell.text.slice(lesson.label.length).replace(/^[\s:.#=-]+/, ''));
    return value === null ? null : { value, line: at, said: cell.text };
  }
  if (asLabel(cell.text) !== lesson.label) return null;
  const target =
    lesson.place === 'beside'
      ? line.cells[place + lesson.step]
      : lines[at + 1]?.cells.find(({ xPt }) => Math.abs(xPt - cell.xPt) < SAME_COLUMN_PT);
  const value = target ? valueIn(lesson.field, target.text) : null;
  if (value === null) return null;
  return { value, line: lesson.place === 'below' ? at + 1 : at, said: `${cell.text} ${target!.text}` };
}

const asTaken = <T>({ value: _, ...where }: Told, value: T, { learntFrom }: Lesson): Taken<T> => ({
  ...where,
  value,
  question: `As you read it last time, on ${learntFrom}, which is laid out like this one. Is it right here?`,
});

export interface Taught extends PaperFields {
  categories: Taken<CategoryMax>[];
}

/**
 * A reading with what the lessons for papers laid out like this one say of it. Where the reader found the same by
 * itself, its own finding stays.
 */
export function withLessons<T extends Taught>(
  paper: Paper,
  reading: T,
  lessons: readonly Lesson[],
  barCategory: string,
): T {
  if (lessons.length === 0) return reading;
  const marks = layoutMarks(paper);
  const result: T = { ...reading };
  for (const field of LESSON_FIELDS) {
    const lesson = lessons.find((one) => one.field === field && isSameLayout(one.marks, marks));
    const found = lesson && told(paper, lesson);
    if (!lesson || !found) continue;
    if (field === 'maxPct') {
      const maxPct = Number(found.value);
      const own = reading.categories.find(({ value }) => value.category === barCategory);
      if (own?.value.maxPct === maxPct) continue;
      const taught = asTaken(found, { category: barCategory, maxPct }, lesson);
      result.categories = [taught, ...reading.categories.filter((one) => one !== own)];
    } else if (field === 'flashPointC' || field === 'vanillinPct') {
      const value = Number(found.value);
      if (reading[field]?.value !== value) result[field] = asTaken(found, value, lesson);
    } else if (reading[field]?.value !== found.value) {
      result[field] = asTaken(found, found.value, lesson);
    }
  }
  return result;
}

/** Lessons with new ones before them; an older one for the same field of the same layout is forgotten. */
export function remember(lessons: readonly Lesson[], fresh: readonly Lesson[]): Lesson[] {
  const isReplaced = (old: Lesson) =>
    fresh.some(({ field, marks }) => field === old.field && isSameLayout(marks, old.marks));
  return [...fresh, ...lessons.filter((old) => !isReplaced(old))].slice(0, MOST_LESSONS);
}
