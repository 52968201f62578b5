/** Rows of name, CAS number and share, in whatever order and layout the paper has them. */
import type { DecimalMark } from '../quantities/number';
import { columnsFrom, unitOf, type Column, type ColumnKind } from './columns';
import {
  CAS_PATTERN,
  isCasNumber,
  readFigure,
  thousandsMarkOf,
  unitIn,
  type Figure,
  type FigureUnit,
} from './figures';
import { levelUnit } from './levels';
import { FOOTNOTE } from './raised';
import { lineText, nearestColumn, type Cell, type Paper, type PaperLine } from './page';

/** How papers' names and numbers lead to the constituents the rulebook knows. */
export interface Known {
  byCas(cas: string): { id: string; name: string } | undefined;
  byName(name: string): { id: string; name: string } | undefined;
}

export interface TakenRow {
  name: string;
  cas: string[];
  /** The constituent it is held as, or null where none is known. */
  constituent: string | null;
  lowPct: number;
  typicalPct: number;
  highPct: number;
  lines: number[];
  said: string;
  question: string | null;
}

/** A name that goes on in the next line stands within this many line heights below. */
const WRAP_HEIGHTS = 1.9;
/** Lines that one row may go on over. */
const MOST_CARRIED = 12;
/** And begins within this many points of where the name began. */
const SAME_COLUMN_PT = 14;

interface Table {
  columns: readonly Column[];
  unit: FigureUnit | null;
}

interface Ways {
  table: Table | null;
  /** The unit that a line above says of all shares; null where none does. */
  said: FigureUnit | null;
  mark: DecimalMark;
  /** The mark of parts of a million, which run into thousands. */
  ppmMark: DecimalMark;
}

const EC_NUMBER = /^\d{3}-\d{3}-\d$/;

/** What stands round the pieces of a cell and is of none of them: brackets, leaders, the letters of a CAS number. */
const ROUND_PIECE = /^(?:[\s,;:)(…_-]|\.{2,})+|[\s,;:)(…_-]+(?:CAS(?:[- ]?(?:no|nr|n°)\.?)?[\s,;:)(-]*)?$/gi;

/** Cells of a line, with one that holds name, number and share together taken apart. */
function apart(line: PaperLine): Cell[] {
  return line.cells.flatMap((cell): Cell[] => {
    const numbers = cell.text.match(CAS_PATTERN);
    if (!numbers || numbers.join(' ') === cell.text) return [cell];
    const first = cell.text.indexOf(numbers[0]);
    const last = cell.text.lastIndexOf(numbers.at(-1)!) + numbers.at(-1)!.length;
    const place = (index: number) => cell.xPt + (cell.widthPt * index) / cell.text.length;
    const piece = (from: number, to: number): Cell => ({
      text: cell.text.slice(from, to).replace(ROUND_PIECE, ''),
      xPt: place(from),
      widthPt: place(to) - place(from),
    });
    return [piece(0, first), piece(first, last), piece(last, cell.text.length)].filter(
      ({ text }) => text !== '' && !/^CAS(?:[- ]?(?:no|nr|n°)\.?)?$/i.test(text),
    );
  });
}

interface Read {
  figure: Figure;
  cell: Cell;
  column: Column | null;
}

function figuresIn(cells: readonly Cell[], { table, said, mark, ppmMark }: Ways): Read[] {
  return cells.flatMap((cell): Read[] => {
    const column = table && nearestColumn(cell, table.columns);
    const unit = column?.unit ?? table?.unit ?? said ?? '%';
    const figure = readFigure(cell.text, unit, mark ?? (unit === 'ppm' ? ppmMark : null));
    return figure ? [{ figure, cell, column }] : [];
  });
}

/** Two figures of one share in different units come so near each other, percent. */
const SAME_PCT = 1e-6;

const NO_SHARE: Figure = {
  lowPct: 0,
  typicalPct: 0,
  highPct: 0,
  question: 'No share stands in this row. Type it, or leave the row out.',
};
const SEVERAL = 'Several figures stand in this row; the first was taken. Is it the share in the material?';
const SHARES = 'Several columns hold a share in this row; the first was taken. Which is of this material?';
const UNHEADED = 'The head of this column does not say that it holds the share. Does it?';
const OUTSIDE = 'What was found lies outside the specification. Which one holds?';

/** A finding within its specification: the one is what is usual, the other how far it can go. */
function foundWithin(found: Figure, low: number, high: number): Figure {
  const isInside = found.typicalPct >= low && found.typicalPct <= high;
  const ends = isInside ? { lowPct: low, highPct: high } : {};
  return { ...found, ...ends, question: found.question ?? (isInside ? null : OUTSIDE) };
}

/** Whether a range beside a single figure holds it: then it is the specification, whatever its column is called. */
function isAround(range: Figure, one: Figure): boolean {
  return (
    range.lowPct < range.highPct &&
    range.lowPct > 0 &&
    one.lowPct === one.highPct &&
    range.lowPct <= one.typicalPct &&
    one.typicalPct <= range.highPct
  );
}

/** The share a row states, from the columns its figures stand in. */
function shareOf(read: readonly Read[]): { figure: Figure; cell: Cell | null } {
  const inColumn = (kind: ColumnKind) => read.find(({ column }) => column?.kind === kind);
  const found = inColumn('found');
  const spec = inColumn('spec');
  const [least, most] = [inColumn('least'), inColumn('most')];
  const usual = found ?? inColumn('share');
  if (usual && spec && spec !== usual) {
    const { lowPct, highPct } = spec.figure;
    return { figure: foundWithin(usual.figure, lowPct, highPct), cell: usual.cell };
  }
  if (least && most) {
    const [low, high] = [least.figure.lowPct, most.figure.highPct];
    const middle = { ...most.figure, lowPct: low, typicalPct: (low + high) / 2, highPct: high };
    return { figure: usual ? foundWithin(usual.figure, low, high) : middle, cell: (usual ?? most).cell };
  }
  const around = usual && read.find((one) => one !== usual && isAround(one.figure, usual.figure));
  if (usual && around) {
    const { lowPct, highPct } = around.figure;
    return { figure: foundWithin(usual.figure, lowPct, highPct), cell: usual.cell };
  }
  if (usual) {
    const others = found ? [] : read.filter(({ column }) => column?.kind === 'share');
    const isOne = others.every(
      ({ figure }) => Math.abs(figure.typicalPct - usual.figure.typicalPct) < SAME_PCT,
    );
    const question = isOne ? usual.figure.question : SHARES;
    return { figure: { ...usual.figure, question }, cell: usual.cell };
  }
  if (spec) return { figure: spec.figure, cell: spec.cell };
  if (most) return { figure: { ...most.figure, lowPct: 0 }, cell: most.cell };
  const open = read.filter(({ column }) => column?.kind !== 'ec');
  const [first, ...more] = open;
  if (!first) return { figure: NO_SHARE, cell: null };
  const unheaded = first.column?.kind === 'other' ? UNHEADED : null;
  const question = more.length > 0 ? SEVERAL : (unheaded ?? first.figure.question);
  return { figure: { ...first.figure, question }, cell: first.cell };
}

interface Draft extends TakenRow {
  namePt: number;
  page: number;
  footPt: number;
}

function nameOf(cells: readonly Cell[], read: readonly Read[], { table }: Ways): Cell | null {
  const names = cells.filter((cell) => /\p{L}{2}/u.test(cell.text) && !read.some((one) => one.cell === cell));
  const headed = table && names.find((cell) => nearestColumn(cell, table.columns)?.kind === 'name');
  return headed ?? names[0] ?? null;
}

function rowFrom(line: PaperLine, index: number, ways: Ways): Draft | null {
  const cells = apart(line);
  const cas = cells.flatMap(({ text }) => text.match(CAS_PATTERN) ?? []);
  if (cas.length === 0) return null;
  const others = cells.filter(({ text }) => !text.match(CAS_PATTERN) && !EC_NUMBER.test(text));
  const read = figuresIn(others, ways);
  const { figure } = shareOf(read);
  const name = nameOf(others, read, ways);
  return {
    name: (name?.text ?? '').replace(FOOTNOTE, ''),
    cas,
    constituent: null,
    ...figure,
    lines: [index],
    said: lineText(line),
    namePt: name?.xPt ?? 0,
    page: line.page,
    footPt: line.yPt,
  };
}

/** A line that carries on the row above it: the rest of a name, or more CAS numbers. */
function carriesOn(
  draft: Draft,
  line: PaperLine,
  mark: DecimalMark,
): { name?: string; cas?: string[] } | null {
  if (line.page !== draft.page || line.yPt - draft.footPt > WRAP_HEIGHTS * line.heightPt) return null;
  if (line.cells.length > 2 || draft.lines.length > MOST_CARRIED) return null;
  const cells = apart(line);
  const cas = cells.flatMap(({ text }) => text.match(CAS_PATTERN) ?? []);
  const names = cells.filter(({ text }) => !text.match(CAS_PATTERN) && !EC_NUMBER.test(text));
  if (names.some(({ text }) => readFigure(text, '%', mark) !== null)) return null;
  if (names.some(({ xPt }) => Math.abs(xPt - draft.namePt) > SAME_COLUMN_PT)) return null;
  if (names.some(({ text }) => /[:.]$/.test(text) || text.length > 60)) return null;
  return { name: names.map(({ text }) => text).join(' ') || undefined, cas };
}

function joined(name: string, rest: string): string {
  return /-$/.test(name) ? name + rest : `${name} ${rest}`;
}

function withConstituent(row: TakenRow, known: Known): TakenRow {
  const bad = row.cas.filter((cas) => !isCasNumber(cas));
  const byCas = row.cas.map((cas) => known.byCas(cas)).find((entry) => entry !== undefined);
  const byName = known.byName(row.name);
  const found = byCas ?? byName;
  const questions = [row.question];
  if (bad.length > 0) {
    questions.unshift(`The digits of ${bad.join(' and ')} do not check. Compare them with the page.`);
  } else if (byCas && byName && byCas.id !== byName.id) {
    questions.unshift(`The number says ${byCas.name}, the name ${byName.name}. Which is it?`);
  }
  return { ...row, constituent: found?.id ?? null, question: questions.find(Boolean) ?? null };
}

const BY_NAME = 'No CAS number stands beside it; it was matched by its name.';

/** Rows without any CAS number, where the name is one the rulebook knows and a figure stands beside it. */
function namedRow(line: PaperLine, index: number, ways: Ways, known: Known): TakenRow | null {
  if (line.cells.length < 2) return null;
  const at = line.cells.findIndex(({ text }) => known.byName(text.replace(FOOTNOTE, '')) !== undefined);
  const cell = line.cells[at];
  if (!cell) return null;
  const read = figuresIn(
    line.cells.filter((other) => other !== cell && !EC_NUMBER.test(other.text)),
    ways,
  );
  const { figure, cell: stood } = shareOf(read);
  if (!stood) return null;
  const name = cell.text.replace(FOOTNOTE, '');
  return named(name, figure, index, lineText(line), known)!;
}

function named(name: string, figure: Figure, index: number, said: string, known: Known): TakenRow | null {
  const constituent = known.byName(name)?.id;
  if (constituent === undefined) return null;
  return {
    name,
    cas: [],
    constituent,
    ...figure,
    lines: [index],
    said,
    question: figure.question ?? BY_NAME,
  };
}

/** A share with its unit, and the letters before it that may name what it is of. */
const IN_WORDS =
  /([\p{L}][\p{L}\d ()'’,-]{2,60}?)[\s:=(.…_]*\s((?:<=?|≤|max(?:imum|\.)?|up to|bis(?: zu)?|jusqu['’]à|hasta|about|ca\.?)?\s*\d[\d.,]*(?:\s*%?\s*(?:-|–|to|bis|à|a)\s*\d[\d.,]*)?\s*(?:%|ppm|mg\s?\/\s?kg))/gu;
const MOST_NAME_WORDS = 4;

/** Names that the rulebook knows with a share right behind them, in one cell or a sentence: "linalool 4.1 %, citral 0.35 %". */
function rowsInWords(line: PaperLine, index: number, ways: Ways, known: Known): TakenRow[] {
  const text = lineText(line);
  return [...text.matchAll(IN_WORDS)].flatMap(([, before, share]): TakenRow[] => {
    const figure = readFigure(share!.replace(/^\s*(?:up to|jusqu['’]à|hasta)/, 'max'), '%', ways.mark);
    if (!figure) return [];
    const words = before!.trim().split(/\s+/);
    for (let count = Math.min(MOST_NAME_WORDS, words.length); count > 0; count--) {
      const name = words
        .slice(-count)
        .join(' ')
        .replace(/[,(:]+$/, '');
      const row = named(name, figure, index, text, known);
      if (row) return [row];
    }
    return [];
  });
}

function tidy({ name, cas, constituent, lowPct, typicalPct, highPct, lines, said, question }: TakenRow) {
  return { name, cas: [...new Set(cas)], constituent, lowPct, typicalPct, highPct, lines, said, question };
}

function collect(paper: Paper, known: Known, mark: DecimalMark): TakenRow[] {
  const ppmMark = thousandsMarkOf(paper.lines.map(lineText));
  const rows: TakenRow[] = [];
  let table: Table | null = null;
  let said: FigureUnit | null = null;
  let draft: Draft | null = null;
  paper.lines.forEach((line, index) => {
    const columns = columnsFrom(paper.lines, index);
    if (columns) {
      table = { columns, unit: unitOf(columns, paper.lines, index) };
      draft = null;
      return;
    }
    if (!CAS_LINE.test(lineText(line)) && !line.cells.some(({ text }) => readFigure(text, '%', mark)))
      said = levelUnit(lineText(line)) ?? said;
    const ways = { table, said, mark, ppmMark };
    const more = draft && line.cells.length > 0 ? carriesOn(draft, line, mark) : null;
    const isNumbersOnly = more?.cas && more.cas.length > 0 && more.name === undefined;
    const fresh = isNumbersOnly ? null : rowFrom(line, index, ways);
    if (fresh) {
      draft = fresh;
      rows.push(fresh);
      return;
    }
    const beside = namedRow(line, index, ways, known);
    const inRow = beside ? [beside] : rowsInWords(line, index, ways, known);
    if (draft && more && inRow.length === 0) {
      if (more.name) draft.name = joined(draft.name, more.name);
      draft.cas.push(...(more.cas ?? []));
      draft.lines.push(index);
      draft.said += ` ${lineText(line)}`;
      draft.footPt = line.yPt;
      return;
    }
    draft = null;
    rows.push(...inRow);
  });
  return rows;
}

/** Reads every row of the paper; names that wrap are joined, double rows are asked about. */
export function readRows(paper: Paper, known: Known, mark: DecimalMark): TakenRow[] {
  const whole = collect(paper, known, mark).map((row) => withConstituent(tidy(row), known));
  return whole.map((row, index) => {
    const earlier = whole.findIndex(
      (other) => other.constituent !== null && other.constituent === row.constituent,
    );
    if (row.constituent === null || earlier === index || row.question) return row;
    return { ...row, question: `${row.name} stands twice. Only one row should be taken.` };
  });
}

/** Whether any heading or figure of the paper states the unit of its shares. */
export function statesUnit(paper: Paper): boolean {
  return paper.lines.some((line, index) => {
    const columns = columnsFrom(paper.lines, index);
    if (columns) return unitOf(columns, paper.lines, index) !== null;
    const text = lineText(line);
    return CAS_LINE.test(text) && unitIn(text) !== null;
  });
}

const CAS_LINE = new RegExp(CAS_PATTERN.source);
