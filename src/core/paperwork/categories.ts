/** The maximum in the finished product for each product category, however the table lies. */
import type { DecimalMark } from '../quantities/number';
import { inBlocks } from './category-blocks';
import { CAS_LINE, inText } from './categories-in-text';
import { farAbove, once, soapKinds, type Found } from './category-checks';
import { thousandsMarkOf, type FigureUnit } from './figures';
import { isLevel, levelAtEnd, levelInNote, levelUnit, readLevel, type ReadLevel, type Ways } from './levels';
import {
  CATEGORY_WORD,
  FRACTION_WORD,
  IN_MATERIAL,
  IN_SOLD,
  LEVEL_HEAD,
  OLD_HEAD,
  plainText,
} from './lexicon';
import {
  isClose,
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
import { GROUP, SPEAKS, categoriesIn } from './category-names';

const WORDED = new RegExp(
  `^(?:ifra\\s*)?(?:product\\s*|produkt)?${CATEGORY_WORD}\\.?\\s*(?:n[°ºro]?\\.?|nr\\.?|no\\.?)?\\s*[:#]?\\s*${GROUP}(?![\\d]|[.,]\\d)(.*)$`,
);
const BARE = new RegExp(`^${GROUP}(?!\\d|[.,]\\d|\\s*%)(?:$|\\s*[-–—:.]\\s+|\\s+(?=[a-z(\\d<]))(.*)$`);
/** A column's head; a certificate in French ends as a category begins. */
const HEAD = new RegExp(
  `^(?:ifra|product|produkt)?[\\s-]*(?:[a-z]{2,12}\\s+)?${CATEGORY_WORD}(?![a-z])|(?<!certifi)${CATEGORY_WORD}$`,
);

/** A figure, though it reads like two categories. */
const DECIMAL = /^\d+[.,]\d+\s*%?$/;

/** A category beside which something stands that is no level by itself. */
export interface OpenLevel {
  category: string;
  said: string;
}

interface Column extends Span {
  kind: 'category' | 'old' | 'level' | 'otherLevel';
  unit: FigureUnit | null;
  /** Its place in the head, from 0. */
  place: number;
}

const OTHER_LEVEL = /typical|recommend|usual|empfohlen|habituel|old|former|previous|48|49/;
const isOtherLevel = (plain: string) =>
  OTHER_LEVEL.test(plain) || (IN_MATERIAL.test(plain) && !IN_SOLD.test(plain));

/** The columns of a table of categories, from its head; null where a line is no such head. */
function columnsOf(line: PaperLine): Column[] | null {
  const columns = line.cells.flatMap((cell, place): Column[] => {
    const plain = plainText(cell.text);
    const column = { ...spanOf(cell), place, unit: null };
    if (WORDED.test(plain) || plain.length > 60) return [];
    if (HEAD.test(plain) && !LEVEL_HEAD.test(plain.replace(/^.*?[ck]at\w*/, '')))
      return [{ ...column, kind: OLD_HEAD.test(plain) ? 'old' : 'category' }];
    if (!LEVEL_HEAD.test(plain)) return [];
    return [{ ...column, unit: levelUnit(cell.text), kind: isOtherLevel(plain) ? 'otherLevel' : 'level' }];
  });
  if (line.cells.filter(({ text }) => ALONE.test(plainText(text))).length >= LEAST_ACROSS) return null;
  const hasCategory = columns.some(({ kind }) => kind === 'category' || kind === 'old');
  if (!hasCategory || line.cells.length < 2) return null;
  return columns.some(({ kind }) => kind === 'category')
    ? columns
    : columns.map((column) => (column.kind === 'old' ? { ...column, kind: 'category' } : column));
}

const COLUMN_SLACK_PT = 16;

function nearColumn(cell: Cell, columns: readonly Column[]): Column | null {
  const nearest = nearestColumn(cell, columns);
  return nearest && offColumn(cell, nearest) <= COLUMN_SLACK_PT ? nearest : null;
}

/** The columns of a table, and how many cells its head has. */
interface Head {
  columns: readonly Column[];
  cells: number;
}

/**
 * The column of every cell of a line. Where cells stand off their columns, as in pasted text, a line of as many cells as
 * its head goes by their order.
 */
function columnsAt(line: PaperLine, head: Head | null): (Column | null)[] {
  if (!head) return line.cells.map(() => null);
  const near = line.cells.map((cell) => nearColumn(cell, head.columns));
  const isAligned = near.every((column) => column !== null) && new Set(near).size === near.length;
  if (isAligned || line.cells.length !== head.cells) return near;
  return line.cells.map((_, place) => head.columns.find((column) => column.place === place) ?? null);
}

interface Placed {
  cell: Cell;
  column: Column | null;
}

interface Pair {
  categories: string[];
  rest: string;
  cells: Placed[];
}

/** What is known of the table a line may stand in. */
interface Table {
  head: Head | null;
  /** The unit that was said of its levels; null where none was. */
  unit: FigureUnit | null;
  /** A line above speaks of categories without heading any column; a bare number may begin a row. */
  isLoose: boolean;
}

/** Where a list within one cell goes on to its next category. */
const NEXT_LISTED = new RegExp(`[;,|·](?=\\s*${CATEGORY_WORD}\\.?\\s*\\d)`, 'g');

/** The parts of a cell that lists several categories, each with its level: "category 9: 1 %; category 4: 0.5 %". */
function listed(cell: Cell): Cell[] {
  const ends = [...plainText(cell.text).matchAll(NEXT_LISTED)].map(({ index }) => index);
  const parts = [...ends, cell.text.length].map((end, at) => {
    const from = at === 0 ? 0 : ends[at - 1]! + 1;
    return { ...cell, text: cell.text.slice(from, end).trim() };
  });
  return parts.every(({ text }) => text.includes(':')) ? parts : [cell];
}

/** Takes a line apart into categories, each with the cells up to the next one. */
function pairsOf(line: PaperLine, { head, isLoose }: Table): Pair[] {
  const pairs: Pair[] = [];
  const columns = columnsAt(line, head);
  for (const [place, whole] of line.cells.entries())
    for (const cell of listed(whole)) {
      const plain = plainText(cell.text);
      const column = columns[place]!;
      const worded = column?.kind === 'old' ? null : WORDED.exec(plain);
      const mayBeBare = column?.kind === 'category' || (isLoose && !head && place === 0);
      const bare = mayBeBare && !DECIMAL.test(plain) ? BARE.exec(plain) : null;
      const match = worded ?? bare;
      if (match) {
        const rest = cell.text.slice(cell.text.length - match[2]!.length);
        pairs.push({ categories: categoriesIn(match[1]!), rest, cells: [] });
      } else if (column?.kind !== 'old') pairs.at(-1)?.cells.push({ cell, column });
    }
  return pairs.filter(({ categories }) => categories.length > 0);
}

const SEVERAL =
  'Several figures stand beside this category; the one in the column of levels was taken. Is it the maximum?';

/** A paper that says its levels are parts of one means all of them; else what is said nearest counts. */
const unitOf = ({ unit }: Ways, ...said: readonly (FigureUnit | null | undefined)[]): FigureUnit =>
  unit === 'fraction' ? unit : (said.find((one) => one != null) ?? unit);

interface Read {
  level: ReadLevel;
  said: string;
  column: Column | null;
}

/** The level among the cells that follow a category, with the cell it was read of. */
function levelOf(pair: Pair, table: Table, ways: Ways): Read | null {
  const read = pair.cells.flatMap(({ cell, column }): Read[] => {
    const level = readLevel(cell.text, { ...ways, unit: unitOf(ways, column?.unit, table.unit) });
    return level === null ? [] : [{ level, said: cell.text, column }];
  });
  if (read.length === 0) {
    const level = levelAtEnd(pair.rest, { ...ways, unit: unitOf(ways, table.unit) });
    return level && { level, said: pair.rest, column: null };
  }
  const headed = read.filter(({ column }) => column?.kind === 'level');
  const open = headed.length > 0 ? headed : read.filter(({ column }) => column?.kind !== 'otherLevel');
  const chosen = (open.length > 0 ? open : read).at(-1)!;
  const isPlain = open.length <= 1 || new Set(open.map(({ level }) => JSON.stringify(level))).size === 1;
  if (isPlain || typeof chosen.level === 'string') return chosen;
  return { ...chosen, level: { ...chosen.level, question: SEVERAL } };
}

interface Reading {
  paper: Paper;
  ways: Ways;
  open: OpenLevel[];
}

function foundIn(line: PaperLine, index: number, table: Table, { paper, ways, open }: Reading): Found[] {
  return pairsOf(line, table).flatMap((pair) => {
    const read = levelOf(pair, table, ways);
    if (!read || read.level === 'none') return [];
    const level = read.level === 'open' ? levelInNote(paper, read.said, ways) : read.level;
    if (typeof level === 'string') {
      open.push(
        ...pair.categories.map((category) => ({
          category,
          said: read.said.replace(/^[\s:=.–-]+/, '').trim(),
        })),
      );
      return [];
    }
    return pair.categories.map((category) => ({
      value: { category, maxPct: level.maxPct },
      line: index,
      said: lineText(line),
      question: level.question,
    }));
  });
}

const LEAST_ACROSS = 3;

/** A line of levels, with the line below it where its cells wrap. */
function levelsBelow(paper: Paper, index: number, ways: Ways): PaperLine | undefined {
  const [line, next] = [paper.lines[index], paper.lines[index + 1]];
  if (!line || !isClose(line, next)) return line;
  const joined = oneRow([line, next]);
  const count = ({ cells }: PaperLine) => cells.filter(({ text }) => isLevel(text, ways)).length;
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

/** Which head each cell below stands under: by place, or by order where there is one for each cell of the line of heads. */
function headsBelow<Head extends Span & { place: number }>(
  line: PaperLine,
  below: PaperLine,
  heads: readonly Head[],
): (Head | null)[] {
  const near = below.cells.map((cell) => {
    const nearest = nearestColumn(cell, heads);
    return nearest && offColumn(cell, nearest) <= 2 * below.heightPt ? nearest : null;
  });
  const found = near.filter((head) => head !== null);
  const isAligned = new Set(found).size === found.length && found.length >= heads.length;
  if (isAligned || below.cells.length !== line.cells.length) return near;
  return below.cells.map((_, place) => heads.find((head) => head.place === place) ?? null);
}

/** The words before the levels of a row: what the row is of. */
const nameOfRow = ({ cells }: PaperLine, ways: Ways) =>
  cells
    .filter(({ text }) => !isLevel(text, ways))
    .map(({ text }) => text)
    .join(' ');

/** A table that lies across: categories in one line, their figures below them. */
function across(paper: Paper, index: number, unit: FigureUnit | null, { ways, open }: Reading): Found[] {
  const line = paper.lines[index]!;
  const heads = line.cells.flatMap((cell, place) => {
    const plain = plainText(cell.text);
    if (DECIMAL.test(plain)) return [];
    const match = ALONE.exec(plain);
    return match ? [{ ...spanOf(cell), place, categories: categoriesIn(match[1]!) }] : [];
  });
  const below = levelsBelow(paper, index + 1, ways);
  if (heads.length < LEAST_ACROSS || line.cells.length - heads.length > 1 || !below) return [];
  const own = { ...ways, unit: unitOf(ways, levelUnit(nameOfRow(below, ways)), unit) };
  const isOfMany = ({ cells }: PaperLine) =>
    cells.filter(({ text }) => isLevel(text, own)).length >= LEAST_ACROSS;
  // More rows of the same kind below: several scents, or several editions, in one table.
  const rows = paper.lines.slice(index + 1, index + 1 + MOST_BETWEEN).filter(isOfMany);
  const names = rows.map((row) => nameOfRow(row, own)).filter(Boolean);
  const question =
    rows.length > 1 && names.length > 1
      ? `Several rows stand below: ${names.join(', ')}. Which is this one?`
      : null;
  const places = headsBelow(line, below, heads);
  return below.cells.flatMap((cell, place): Found[] => {
    const level = readLevel(cell.text, own);
    const head = places[place];
    if (level === null || level === 'none' || !head) return [];
    if (level === 'open') {
      open.push(...head.categories.map((category) => ({ category, said: cell.text })));
      return [];
    }
    return head.categories.map((category) => ({
      value: { category, maxPct: level.maxPct },
      line: index + 1,
      said: `${category}: ${cell.text}`,
      question: question ?? level.question,
    }));
  });
}

/** Lines after which a table without categories has ended. */
const MOST_BETWEEN = 8;

/** Whether a line says that levels are parts of one, be it in cells that wrap: "(1" over "= 100 %)". */
function saysFraction(paper: Paper, index: number): boolean {
  const [line, next] = [paper.lines[index]!, paper.lines[index + 1]];
  if (FRACTION_WORD.test(plainText(lineText(line)))) return true;
  if (!isClose(line, next)) return false;
  return oneRow([line, next]).cells.some(({ text }) => FRACTION_WORD.test(plainText(text)));
}

/** What holds so many parts of a million speaks of itself. */
const PPM_FIGURE = /\d\s*(?:ppm|mg\s?\/\s?kg)/;

/** The unit that a line above a table, or its head, says of all levels; null where none does. */
function unitSaid(line: PaperLine, ways: Ways): FigureUnit | null {
  const text = lineText(line);
  const holdsFigure =
    line.cells.some(({ text: cell }) => isLevel(cell, ways)) || PPM_FIGURE.test(plainText(text));
  return holdsFigure || CAS_LINE.test(text) ? null : levelUnit(text);
}

/** Every category and its maximum, and those beside which something stands that is no level by itself. */
export function readCategories(paper: Paper, mark: DecimalMark): { found: Found[]; open: OpenLevel[] } {
  const isFraction = paper.lines.some((_, index) => saysFraction(paper, index));
  const ppmMark = thousandsMarkOf(paper.lines.map(lineText));
  const ways: Ways = { mark, ppmMark, unit: isFraction ? 'fraction' : '%' };
  const reading: Reading = { paper, ways, open: [] };
  const found: Found[] = [];
  const told: Found[] = [];
  let table: Table = { head: null, unit: null, isLoose: false };
  let said: FigureUnit | null = null;
  /** The same where it speaks of levels: a list without heads goes by it. */
  let saidOfLevels: FigureUnit | null = null;
  let idle = 0;
  paper.lines.forEach((line, index) => {
    // Rows of constituents end a table of categories.
    if (CAS_LINE.test(lineText(line))) table = { head: null, unit: null, isLoose: false };
    const own = unitSaid(line, ways);
    said = own ?? said;
    if (own && LEVEL_HEAD.test(plainText(lineText(line)))) saidOfLevels = own;
    if (table.head && table.unit === null) table = { ...table, unit: said };
    const columns = columnsOf(line);
    if (columns)
      [table, idle] = [{ head: { columns, cells: line.cells.length }, unit: said, isLoose: false }, 0];
    const openBefore = reading.open.length;
    const lying = table.head ? [] : across(paper, index, said, reading);
    const row = wrappedRow(paper, index) ?? line;
    const asSaid = table.head ? table : { ...table, unit: table.unit ?? saidOfLevels };
    const standing =
      lying.length > 0 || (columns && row === line) ? [] : foundIn(row, index, asSaid, reading);
    if (standing.length > 0) idle = 0;
    else if (SPEAKS.test(plainText(lineText(line))))
      [table, idle] = [{ ...table, unit: said, isLoose: true }, 0];
    else if (++idle > MOST_BETWEEN)
      [table, said, saidOfLevels] = [{ head: null, unit: null, isLoose: false }, null, null];
    found.push(...lying, ...standing);
    const isOpen = reading.open.length > openBefore;
    if (lying.length === 0 && standing.length === 0 && !columns && !isOpen)
      told.push(...inText(paper, index, ways));
  });
  // What a table says counts before what stands in a sentence about another thing.
  const inTable = new Set(found.map(({ value }) => value.category));
  const all = once([
    ...found,
    ...told.filter(({ value }) => !inTable.has(value.category) || found.length < LEAST_ACROSS),
  ]);
  if (all.length === 0 && reading.open.length === 0) {
    const blocks = inBlocks(paper, ways);
    return { found: blocks.length > 0 ? blocks : soapKinds(paper, ways), open: [] };
  }
  const known = new Set(all.map(({ value }) => value.category));
  return { found: farAbove(all), open: reading.open.filter(({ category }) => !known.has(category)) };
}
