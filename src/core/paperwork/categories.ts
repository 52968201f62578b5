/** The maximum in the finished product for each product category, however the table lies. */
import type { DecimalMark } from '../quantities/number';
import type { Taken } from './fields';
import { CAS_PATTERN, readFigure, type FigureUnit } from './figures';
import {
  CATEGORY_WORD,
  FORBIDDEN,
  FRACTION_WORD,
  FREE,
  LEVEL_HEAD,
  MEANINGLESS,
  OLD_HEAD,
  plainText,
} from './lexicon';
import {
  lineText,
  nearestColumn,
  offColumn,
  oneRow,
  overlaps,
  spanOf,
  type Cell,
  type Paper,
  type PaperLine,
  type Span,
} from './page';

/** Maximum for a category, percent of the finished product; 0 is not permitted, 100 not restricted. */
export interface CategoryMax {
  category: string;
  maxPct: number;
}

type Found = Taken<CategoryMax>;

const ONE = String.raw`(?:1[0-2]|[1-9])(?:\s?\.?\s?[a-d](?![a-z]))?`;
const JOIN = String.raw`\s*(?:,|/|&|\+|;|and|und|et|y|e|en|-)\s*`;
/** "9", "5A", "5A, 5B", "10A/10B", "7 A & B". */
const GROUP = String.raw`(${ONE}(?:${JOIN}(?:${ONE}|[a-d](?![a-z])))*)`;
const WORDED = new RegExp(
  `^(?:ifra\\s*)?(?:product\\s*|produkt)?${CATEGORY_WORD}\\.?\\s*(?:n[°ºro]?\\.?|nr\\.?|no\\.?)?\\s*[:#]?\\s*${GROUP}(?![\\d]|[.,]\\d)(.*)$`,
);
const BARE = new RegExp(`^${GROUP}(?!\\d|[.,]\\d|\\s*%)(?:$|\\s*[-–:.]\\s+|\\s+(?=[a-z(\\d<]))(.*)$`);
/** A column's head; a certificate in French ends as a category begins. */
const HEAD = new RegExp(
  `^(?:ifra|product|produkt)?[\\s-]*(?:[a-z]{2,12}\\s+)?${CATEGORY_WORD}(?![a-z])|(?<!certifi)${CATEGORY_WORD}$`,
);

const SPEAKS = new RegExp(`\\b${CATEGORY_WORD}(?![a-z])`);
/** A figure, though it reads like two categories. */
const DECIMAL = /^\d+[.,]\d+\s*%?$/;

/** The categories a text names: "5a, b" are 5A and 5B. */
function categoriesIn(group: string): string[] {
  const names: string[] = [];
  for (const [, digits, letter] of group.matchAll(/(\d{1,2})?\s?\.?\s?([a-d])?(?![a-z])/g)) {
    if (!digits && !letter) continue;
    const number = digits ?? /\d+/.exec(names.at(-1) ?? '')?.[0];
    if (number) names.push(`${number}${(letter ?? '').toUpperCase()}`);
  }
  const span = /^(\d{1,2})\s?([a-d])\s*-\s*(?:\1\s?)?([a-d])$/.exec(group.trim());
  if (!span) return [...new Set(names)];
  const [, number, from, to] = span;
  const letters = 'ABCD'.slice('abcd'.indexOf(from!), 'abcd'.indexOf(to!) + 1);
  return [...letters].map((letter) => number! + letter);
}

interface Ways {
  mark: DecimalMark;
  unit: FigureUnit;
}

/** A level; null where a text is none, undefined where the category does not apply. */
function readMax(text: string, { mark, unit }: Ways): number | null | undefined {
  const plain = plainText(text)
    .replace(/[*†]+$/, '')
    .trim();
  if (MEANINGLESS.test(plain)) return undefined;
  if (FORBIDDEN.test(plain)) return 0;
  if (FREE.test(plain)) return 100;
  const figure = readFigure(plain.replace(/^(?:max(?:imum|imo|\.)?|<=?|≤)\s*:?\s*/, ''), unit, mark);
  if (!figure || figure.question !== null || figure.lowPct !== figure.highPct) return null;
  return figure.highPct;
}

/** The level at the end of a text that goes on after its category. */
function maxAtEnd(text: string, ways: Ways): number | null | undefined {
  const rest = text.replace(/^[\s:=.–-]+/, '').trim();
  const whole = readMax(rest, ways);
  if (whole !== null) return whole;
  const tail = /(?:^|[\s:=–(])((?:max\.?\s*)?\d[\d.,]*\s*%|not permitted|no(?:t)? restrict\w*)\)?\.?$/.exec(
    rest,
  );
  return tail ? readMax(tail[1]!, ways) : null;
}

interface Column extends Span {
  kind: 'category' | 'old' | 'level' | 'otherLevel';
}

/** The columns of a table of categories, from its head; null where a line is no such head. */
function columnsOf(line: PaperLine): Column[] | null {
  const columns = line.cells.flatMap((cell): Column[] => {
    const plain = plainText(cell.text);
    const span = spanOf(cell);
    if (WORDED.test(plain) || plain.length > 60) return [];
    if (HEAD.test(plain) && !LEVEL_HEAD.test(plain.replace(/^.*?categor\w*/, '')))
      return [{ ...span, kind: OLD_HEAD.test(plain) ? 'old' : 'category' }];
    if (!LEVEL_HEAD.test(plain)) return [];
    return [
      {
        ...span,
        kind: /typical|recommend|usual|empfohlen|habituel|old|former|previous|48|49/.test(plain)
          ? 'otherLevel'
          : 'level',
      },
    ];
  });
  const hasCategory = columns.some(({ kind }) => kind === 'category' || kind === 'old');
  if (!hasCategory || line.cells.length < 2) return null;
  return columns.some(({ kind }) => kind === 'category')
    ? columns
    : columns.map((column) => (column.kind === 'old' ? { ...column, kind: 'category' } : column));
}

const COLUMN_SLACK_PT = 16;

function columnAt(cell: Cell, columns: readonly Column[]): Column | null {
  const nearest = nearestColumn(cell, columns);
  return nearest && offColumn(cell, nearest) <= COLUMN_SLACK_PT ? nearest : null;
}

interface Pair {
  categories: string[];
  rest: string;
  cells: Cell[];
}

/** What is known of the table a line may stand in. */
interface Table {
  columns: readonly Column[] | null;
  /** A line above speaks of categories without heading any column; a bare number may begin a row. */
  isLoose: boolean;
}

/** Takes a line apart into categories, each with the cells up to the next one. */
function pairsOf(line: PaperLine, { columns, isLoose }: Table): Pair[] {
  const pairs: Pair[] = [];
  for (const [place, cell] of line.cells.entries()) {
    const plain = plainText(cell.text);
    const column = columns && columnAt(cell, columns);
    const worded = column?.kind === 'old' ? null : WORDED.exec(plain);
    const mayBeBare = column?.kind === 'category' || (isLoose && !columns && place === 0);
    const bare = mayBeBare && !DECIMAL.test(plain) ? BARE.exec(plain) : null;
    const match = worded ?? bare;
    if (match) {
      const rest = cell.text.slice(cell.text.length - match[2]!.length);
      pairs.push({ categories: categoriesIn(match[1]!), rest, cells: [] });
    } else if (column?.kind !== 'old') pairs.at(-1)?.cells.push(cell);
  }
  return pairs.filter(({ categories }) => categories.length > 0);
}

const SEVERAL =
  'Several figures stand beside this category; the one in the column of levels was taken. Is it the maximum?';

/** The level among the cells that follow a category. */
function levelOf(pair: Pair, columns: readonly Column[] | null, ways: Ways) {
  const read = pair.cells.flatMap((cell) => {
    const max = readMax(cell.text, ways);
    return max === null ? [] : [{ max, column: columns && columnAt(cell, columns) }];
  });
  if (read.length === 0) {
    const max = maxAtEnd(pair.rest, ways);
    return max === null ? null : { max, question: null };
  }
  const headed = read.filter(({ column }) => column?.kind === 'level');
  const open = headed.length > 0 ? headed : read.filter(({ column }) => column?.kind !== 'otherLevel');
  const chosen = (open.length > 0 ? open : read).at(-1)!;
  const isPlain = open.length <= 1 || new Set(open.map(({ max }) => max)).size === 1;
  return { max: chosen.max, question: isPlain ? null : SEVERAL };
}

function foundIn(line: PaperLine, index: number, table: Table, ways: Ways): Found[] {
  return pairsOf(line, table).flatMap((pair) => {
    const level = levelOf(pair, table.columns, ways);
    if (!level || level.max === undefined) return [];
    const { max: maxPct, question } = level;
    return pair.categories.map((category) => ({
      value: { category, maxPct },
      line: index,
      said: lineText(line),
      question,
    }));
  });
}

const LEAST_ACROSS = 3;

/** How far below, in line heights, the rest of a wrapped cell stands. */
const WRAP_HEIGHTS = 1.5;

function isClose(line: PaperLine, next: PaperLine | undefined): next is PaperLine {
  return next !== undefined && next.page === line.page && next.yPt - line.yPt <= WRAP_HEIGHTS * line.heightPt;
}

/** A line of levels, with the line below it where its cells wrap. */
function levelsBelow(paper: Paper, index: number, ways: Ways): PaperLine | undefined {
  const [line, next] = [paper.lines[index], paper.lines[index + 1]];
  if (!line || !isClose(line, next)) return line;
  const joined = oneRow([line, next]);
  const count = ({ cells }: PaperLine) => cells.filter(({ text }) => readMax(text, ways) !== null).length;
  return joined.cells.length === line.cells.length && count(joined) > count(line) ? joined : line;
}

/** A cell that names categories and nothing more. */
const ALONE = new RegExp(`^(?:${CATEGORY_WORD}\\.?\\s*)?${GROUP}$`);
const GROUP_ALONE = new RegExp(`^${GROUP}$`);
const WORD_ALONE = new RegExp(`^${CATEGORY_WORD}\\.?$`);

/** A row whose category stands in two lines, "Category" over "7A". */
function wrappedRow(paper: Paper, index: number): PaperLine | null {
  const [line, next] = [paper.lines[index]!, paper.lines[index + 1]];
  if (!isClose(line, next)) return null;
  const isWrapped = line.cells.some(
    (cell) =>
      WORD_ALONE.test(plainText(cell.text)) &&
      next.cells.some((below) => GROUP_ALONE.test(plainText(below.text)) && overlaps(below, cell)),
  );
  return isWrapped ? oneRow([line, next]) : null;
}

/** A table that lies across: categories in one line, their figures below them. */
function across(paper: Paper, index: number, ways: Ways): Found[] {
  const heads = paper.lines[index]!.cells.flatMap((cell) => {
    const plain = plainText(cell.text);
    if (DECIMAL.test(plain)) return [];
    const match = ALONE.exec(plain);
    return match ? [{ ...spanOf(cell), categories: categoriesIn(match[1]!) }] : [];
  });
  const below = levelsBelow(paper, index + 1, ways);
  const others = paper.lines[index]!.cells.length - heads.length;
  if (heads.length < LEAST_ACROSS || others > 1 || !below) return [];
  return below.cells.flatMap((cell): Found[] => {
    const max = readMax(cell.text, ways);
    if (max === null || max === undefined) return [];
    const nearest = nearestColumn(cell, heads);
    if (!nearest || offColumn(cell, nearest) > 2 * below.heightPt) return [];
    return nearest.categories.map((category) => ({
      value: { category, maxPct: max },
      line: index + 1,
      said: `${category}: ${cell.text}`,
      question: null,
    }));
  });
}

const PERCENT = String.raw`(\d+(?:[.,]\d+)?)\s*%`;
const IN_TEXT: readonly (readonly [RegExp, group: number, figure: number])[] = [
  [new RegExp(`\\b${CATEGORY_WORD}\\.?\\s*${GROUP}(?!\\d|[.,]\\d)[^%\\n.;]{0,90}?${PERCENT}`), 1, 2],
  [new RegExp(`${PERCENT}[^%\\n;]{0,60}?\\b${CATEGORY_WORD}\\.?\\s*${GROUP}(?!\\d|[.,]\\d)`), 2, 1],
];

/** In running text; the figure may stand in the line after the category. */
function inText(paper: Paper, index: number, ways: Ways): Found[] {
  const here = lineText(paper.lines[index]!);
  const plain = plainText(here);
  if (!SPEAKS.test(plain)) return [];
  const next = paper.lines[index + 1];
  const texts = next ? [plain, `${plain} ${plainText(lineText(next))}`] : [plain];
  for (const text of texts) {
    for (const [pattern, group, figure] of IN_TEXT) {
      const match = pattern.exec(text);
      const maxPct = match && readFigure(`${match[figure]} %`, '%', ways.mark)?.highPct;
      if (maxPct === null || maxPct === undefined) continue;
      return categoriesIn(match![group]!).map((category) => ({
        value: { category, maxPct },
        line: index,
        said: match![0],
        question: null,
      }));
    }
  }
  return [];
}

/** One reading a category; where a paper states it twice with different figures, both are offered. */
function once(found: readonly Found[]): Found[] {
  const byCategory = new Map<string, Found>();
  for (const entry of found) {
    const { category, maxPct } = entry.value;
    const before = byCategory.get(category);
    if (!before) byCategory.set(category, entry);
    else if (before.value.maxPct !== maxPct) {
      const [lower, higher] = before.value.maxPct < maxPct ? [before, entry] : [entry, before];
      const question = `The paper states both ${before.value.maxPct} % and ${maxPct} %. Which holds?`;
      byCategory.set(category, { ...lower, question, others: [higher.value] });
    }
  }
  return [...byCategory.values()];
}

const CAS_LINE = new RegExp(CAS_PATTERN.source);
/** Lines after which a table without categories has ended. */
const MOST_BETWEEN = 8;

/** Whether a line says that levels are parts of one, be it in cells that wrap: "(1" over "= 100 %)". */
function saysFraction(paper: Paper, index: number): boolean {
  const [line, next] = [paper.lines[index]!, paper.lines[index + 1]];
  if (FRACTION_WORD.test(plainText(lineText(line)))) return true;
  if (!isClose(line, next)) return false;
  return oneRow([line, next]).cells.some(({ text }) => FRACTION_WORD.test(plainText(text)));
}

/** Every category and its maximum. */
export function readCategories(paper: Paper, mark: DecimalMark): Found[] {
  const isFraction = paper.lines.some((_, index) => saysFraction(paper, index));
  const ways: Ways = { mark, unit: isFraction ? 'fraction' : '%' };
  const found: Found[] = [];
  const told: Found[] = [];
  let table: Table = { columns: null, isLoose: false };
  let idle = 0;
  paper.lines.forEach((line, index) => {
    // Rows of constituents end a table of categories.
    if (CAS_LINE.test(lineText(line))) table = { columns: null, isLoose: false };
    const head = columnsOf(line);
    if (head) [table, idle] = [{ columns: head, isLoose: false }, 0];
    const lying = table.columns?.length ? [] : across(paper, index, ways);
    const row = wrappedRow(paper, index) ?? line;
    const own = lying.length > 0 || (head && row === line) ? [] : foundIn(row, index, table, ways);
    if (own.length > 0) idle = 0;
    else if (SPEAKS.test(plainText(lineText(line)))) [table, idle] = [{ ...table, isLoose: true }, 0];
    else if (++idle > MOST_BETWEEN) table = { columns: null, isLoose: false };
    found.push(...lying, ...own);
    if (lying.length === 0 && own.length === 0 && !head)
      told.push(...inText(paper, index, { ...ways, unit: '%' }));
  });
  // What a table says counts before what stands in a sentence about another thing.
  const inTable = new Set(found.map(({ value }) => value.category));
  return once([
    ...found,
    ...told.filter(({ value }) => !inTable.has(value.category) || found.length < LEAST_ACROSS),
  ]);
}
