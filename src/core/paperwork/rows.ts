/** Rows of name, CAS number and share, in whatever order and layout the paper has them. */
import { CAS_PATTERN, isCasNumber, readFigure, type Figure, type FigureUnit } from './figures';
import { lineText, type Cell, type Paper, type PaperLine } from './page';

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

interface Columns {
  unit: FigureUnit | null;
  /** Where the column of shares in the material stands, if a heading says so. */
  sharePt: number | null;
}

const SHARE_HEAD = /(%|ppm|mg\/kg|conc|content|share|level|in (?:the )?(?:fragrance|material|oil))/i;
const IN_MATERIAL = /in (?:the )?(?:fragrance|material|oil|concentrate)|as supplied|content/i;

function columnsFrom(line: PaperLine): Columns | null {
  const text = lineText(line);
  if (!/\bCAS\b/i.test(text) || line.cells.length < 2) return null;
  const heads = line.cells.filter(({ text: head }) => SHARE_HEAD.test(head) && !/\bCAS\b/i.test(head));
  const chosen = heads.find(({ text: head }) => IN_MATERIAL.test(head)) ?? heads[0];
  const unit = /ppm|mg\/kg/i.test(text) ? 'ppm' : /%/.test(text) ? '%' : null;
  return { unit, sharePt: chosen ? chosen.xPt + chosen.widthPt / 2 : null };
}

/** Cells of a line, with one that holds name, number and share together taken apart. */
function apart(line: PaperLine): Cell[] {
  return line.cells.flatMap((cell): Cell[] => {
    const numbers = cell.text.match(CAS_PATTERN);
    if (!numbers || numbers.join(' ') === cell.text) return [cell];
    const first = cell.text.indexOf(numbers[0]!);
    const last = cell.text.lastIndexOf(numbers.at(-1)!) + numbers.at(-1)!.length;
    const place = (index: number) => cell.xPt + (cell.widthPt * index) / cell.text.length;
    const piece = (from: number, to: number): Cell => ({
      text: cell.text
        .slice(from, to)
        .replace(/^[\s,;:)(-]+|[\s,;:)(-]+(?:CAS(?: no\.?)?[\s,;:)(-]*)?$/gi, ''),
      xPt: place(from),
      widthPt: place(to) - place(from),
    });
    return [piece(0, first), piece(first, last), piece(last, cell.text.length)].filter(
      ({ text }) => text !== '' && !/^CAS(?: no\.?)?$/i.test(text),
    );
  });
}

const EC_NUMBER = /^\d{3}-\d{3}-\d$/;

function figureIn(cells: readonly Cell[], columns: Columns): { figure: Figure; cell: Cell } | null {
  const read = cells.flatMap((cell) => {
    const figure = readFigure(cell.text, columns.unit ?? '%');
    return figure ? [{ figure, cell }] : [];
  });
  if (read.length <= 1) return read[0] ?? null;
  const at = columns.sharePt;
  if (at !== null) {
    const off = ({ cell }: { cell: Cell }) => Math.abs(cell.xPt + cell.widthPt / 2 - at);
    return read.reduce((best, entry) => (off(entry) < off(best) ? entry : best));
  }
  const [first] = read;
  const question = 'Several figures stand in this row; the first was taken. Is it the share in the material?';
  return { ...first!, figure: { ...first!.figure, question } };
}

interface Draft extends TakenRow {
  namePt: number;
  page: number;
  footPt: number;
}

function rowFrom(line: PaperLine, index: number, columns: Columns): Draft | null {
  const cells = apart(line);
  const cas = cells.flatMap(({ text }) => text.match(CAS_PATTERN) ?? []);
  if (cas.length === 0) return null;
  const others = cells.filter(({ text }) => !text.match(CAS_PATTERN) && !EC_NUMBER.test(text));
  const found = figureIn(others, columns);
  const names = others.filter(
    (cell) => cell !== found?.cell && /[A-Za-z]{2}/.test(cell.text) && readFigure(cell.text, '%') === null,
  );
  const figure = found?.figure ?? {
    lowPct: 0,
    typicalPct: 0,
    highPct: 0,
    question: 'No share stands in this row. Type it, or leave the row out.',
  };
  return {
    name: names[0]?.text ?? '',
    cas,
    constituent: null,
    ...figure,
    lines: [index],
    said: lineText(line),
    namePt: names[0]?.xPt ?? 0,
    page: line.page,
    footPt: line.yPt,
  };
}

/** A line that carries on the row above it: the rest of a name, or more CAS numbers. */
function carriesOn(draft: Draft, line: PaperLine): { name?: string; cas?: string[] } | null {
  if (line.page !== draft.page || line.yPt - draft.footPt > WRAP_HEIGHTS * line.heightPt) return null;
  if (line.cells.length > 2 || draft.lines.length > MOST_CARRIED) return null;
  const cas = line.cells.flatMap(({ text }) => text.match(CAS_PATTERN) ?? []);
  const names = line.cells.filter(({ text }) => !text.match(CAS_PATTERN));
  if (names.some(({ text }) => readFigure(text, '%') !== null)) return null;
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

/** Rows without any CAS number, where the name is one the rulebook knows and a figure stands beside it. */
function namedRow(line: PaperLine, index: number, columns: Columns, known: Known): TakenRow | null {
  if (line.cells.length < 2) return null;
  const found = known.byName(line.cells[0]!.text);
  const figure = found ? figureIn(line.cells.slice(1), columns)?.figure : undefined;
  if (!found || !figure) return null;
  return {
    name: line.cells[0]!.text,
    cas: [],
    constituent: found.id,
    ...figure,
    lines: [index],
    said: lineText(line),
    question: figure.question ?? 'No CAS number stands beside it; it was matched by its name.',
  };
}

function tidy({ name, cas, constituent, lowPct, typicalPct, highPct, lines, said, question }: TakenRow) {
  return { name, cas, constituent, lowPct, typicalPct, highPct, lines, said, question };
}

/** Reads every row of the paper; names that wrap are joined, double rows are asked about. */
export function readRows(paper: Paper, known: Known): TakenRow[] {
  const rows: TakenRow[] = [];
  let columns: Columns = { unit: null, sharePt: null };
  let draft: Draft | null = null;
  paper.lines.forEach((line, index) => {
    columns = columnsFrom(line) ?? columns;
    const more = draft && line.cells.length > 0 ? carriesOn(draft, line) : null;
    const isNumbersOnly = more?.cas && more.cas.length > 0 && more.name === undefined;
    const fresh = isNumbersOnly ? null : rowFrom(line, index, columns);
    if (fresh) {
      draft = fresh;
      rows.push(fresh);
      return;
    }
    if (draft && more) {
      if (more.name) draft.name = joined(draft.name, more.name);
      draft.cas.push(...(more.cas ?? []));
      draft.lines.push(index);
      draft.said += ` ${lineText(line)}`;
      draft.footPt = line.yPt;
      return;
    }
    draft = null;
    const named = namedRow(line, index, columns, known);
    if (named) rows.push(named);
  });
  const whole = rows.map((row) => withConstituent(tidy(row), known));
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
  return paper.lines.some((line) => {
    const columns = columnsFrom(line);
    if (columns) return columns.unit !== null;
    const text = lineText(line);
    return CAS_LINE.test(text) && /%|ppm|mg\/kg/i.test(text);
  });
}

const CAS_LINE = new RegExp(CAS_PATTERN.source);
