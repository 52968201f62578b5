/**
 * A supplier's paper as lines of cells, wherever it comes from: text placed on a page, rows of a table file, or
 * pasted text. Positions are in points (1/72 inch) from the top left; pasted text counts letters as points.
 */

export interface Cell {
  text: string;
  /** The same with the raised marks that lead to notes, where it holds any. */
  raised?: string;
  /** Of a figure in a picture: how it was read before its own pixels were looked at, and whether they are clear. */
  other?: string;
  isClear?: boolean;
  /** Of a picture: some of its words were read with little certainty. */
  isUnsure?: boolean;
  xPt: number;
  widthPt: number;
}

export interface PaperLine {
  /** Page number, from 1. */
  page: number;
  /** Distance of the line's foot from the top of its page. */
  yPt: number;
  heightPt: number;
  cells: Cell[];
}

export interface Paper {
  lines: PaperLine[];
}

/** A run of text as a page holds it; (xPt, yPt) is where its baseline starts, from the top left. */
export interface TextItem {
  text: string;
  other?: string;
  isClear?: boolean;
  isUnsure?: boolean;
  xPt: number;
  yPt: number;
  widthPt: number;
  heightPt: number;
}

/** Runs on one baseline, within this share of their height, stand on one line. */
const SAME_LINE = 0.5;
/** A gap wider than this share of the height parts two cells; a narrower one is a blank between words. */
const CELL_GAP = 0.62;
const BLANK_GAP = 0.12;
/** Width and height that pasted letters are given, points. */
const LETTER_PT = 6;
const PASTED_LINE_PT = 12;

function toCells(items: TextItem[], cellGap: number): Cell[] {
  const cells: Cell[] = [];
  let endPt = -Infinity;
  for (const item of [...items].sort((a, b) => a.xPt - b.xPt)) {
    const last = cells.at(-1);
    const gap = item.xPt - endPt;
    if (last && gap < cellGap * item.heightPt) {
      const blank = gap > BLANK_GAP * item.heightPt && !/\s$/.test(last.text) ? ' ' : '';
      if (item.other !== undefined || last.other !== undefined) {
        last.other = (last.other ?? last.text) + blank + (item.other ?? item.text);
        last.isClear = (last.isClear ?? true) && (item.isClear ?? true);
      }
      last.text += blank + item.text;
      if (item.isUnsure) last.isUnsure = true;
      last.widthPt = item.xPt + item.widthPt - last.xPt;
    } else {
      const { text, other, isClear, isUnsure, xPt, widthPt } = item;
      cells.push({
        ...{ text, xPt, widthPt },
        ...(other === undefined ? {} : { other, isClear }),
        ...(isUnsure ? { isUnsure } : {}),
      });
    }
    endPt = item.xPt + item.widthPt;
  }
  return cells
    .map((cell) => ({ ...cell, text: cell.text.replace(/\s+/g, ' ').trim() }))
    .filter(({ text }) => text !== '');
}

/** Lines closer than this share of their height belong to one row, whose cells wrap and stand in its middle. */
const WRAPPED = 0.8;

/** Whether two cells stand over the same part of a page's width. */
export function overlaps(a: Cell, b: Cell): boolean {
  return a.xPt < b.xPt + b.widthPt && b.xPt < a.xPt + a.widthPt;
}

/** One line out of several that make up a row: what stands one below the other is one cell. */
export function oneRow(lines: readonly PaperLine[]): PaperLine {
  const cells: Cell[] = [];
  for (const cell of lines.flatMap((line) => line.cells)) {
    const above = cells.find((other) => overlaps(other, cell));
    if (!above) {
      cells.push({ ...cell });
      continue;
    }
    const right = Math.max(above.xPt + above.widthPt, cell.xPt + cell.widthPt);
    above.text += ` ${cell.text}`;
    above.xPt = Math.min(above.xPt, cell.xPt);
    above.widthPt = right - above.xPt;
  }
  const middle = lines[Math.floor(lines.length / 2)]!;
  return { ...middle, cells: cells.sort((one, two) => one.xPt - two.xPt) };
}

/** Puts the lines of rows with wrapped cells together. */
function withRows(lines: readonly PaperLine[]): PaperLine[] {
  const groups: PaperLine[][] = [];
  for (const line of lines) {
    const last = groups.at(-1);
    const gap = last ? line.yPt - last.at(-1)!.yPt : Infinity;
    if (last && gap < WRAPPED * Math.min(line.heightPt, last.at(-1)!.heightPt)) last.push(line);
    else groups.push([line]);
  }
  return groups.map((group) => (group.length === 1 ? group[0]! : oneRow(group)));
}

/** How far below, in line heights, the rest of a wrapped cell stands. */
const WRAP_HEIGHTS = 1.5;

/** Whether a line stands so close below another that their cells may go on in it. */
export function isClose(line: PaperLine, next: PaperLine | undefined): next is PaperLine {
  return next !== undefined && next.page === line.page && next.yPt - line.yPt <= WRAP_HEIGHTS * line.heightPt;
}

/** A gap parts two cells where it is so many times as wide as the blanks of its page. */
const TIMES_BLANK = 1.5;
/** Words next to each other on a page before its blanks can be told. */
const LEAST_GAPS = 12;

/**
 * From which gap on two words are two cells, in heights of a line, on a page of which every word is known by itself: its
 * blanks may be as wide as those of a typewriter.
 *
 * @example
 * cellGapOf(words); // 0.62, or 1.1 where every letter is as wide as the next
 */
export function cellGapOf(words: readonly (readonly TextItem[])[]): number {
  const gaps = words
    .flatMap((line) =>
      line.slice(1).map((word, at) => (word.xPt - line[at]!.xPt - line[at]!.widthPt) / word.heightPt),
    )
    .sort((a, b) => a - b);
  if (gaps.length < LEAST_GAPS) return CELL_GAP;
  return Math.max(CELL_GAP, TIMES_BLANK * gaps[Math.floor(0.4 * gaps.length)]!);
}

/**
 * The lines of one page from its runs of text, top to bottom; a row whose cells wrap is one line. `cellGap` is the gap
 * that parts cells, in heights of a line.
 */
export function linesFromItems(page: number, items: readonly TextItem[], cellGap = CELL_GAP): PaperLine[] {
  const rows: { yPt: number; heightPt: number; items: TextItem[] }[] = [];
  for (const item of [...items].sort((a, b) => a.yPt - b.yPt)) {
    if (item.text.trim() === '') continue;
    const last = rows.at(-1);
    if (last && Math.abs(item.yPt - last.yPt) <= SAME_LINE * Math.min(item.heightPt, last.heightPt)) {
      last.items.push(item);
      last.heightPt = Math.max(last.heightPt, item.heightPt);
    } else rows.push({ yPt: item.yPt, heightPt: item.heightPt, items: [item] });
  }
  return withRows(
    rows
      .map(({ yPt, heightPt, items: found }) => ({ page, yPt, heightPt, cells: toCells(found, cellGap) }))
      .filter(({ cells }) => cells.length > 0),
  );
}

/** Lines with as many semicolons that make a table of pasted text. */
const LEAST_PARTED = 3;

/**
 * The lines of pasted text; tabs, bars and two or more blanks part cells, semicolons where lines of a table hold as many.
 *
 * @example linesFromText('Category 9\t6.27 %').length // 1
 */
export function linesFromText(text: string): PaperLine[] {
  const lines = text.split(/\r?\n/);
  const counts = lines.map((line) => line.split(';').length - 1).filter((count) => count > 0);
  const isParted = counts.some((count) => counts.filter((one) => one === count).length >= LEAST_PARTED);
  const cell = isParted ? /[^\t|; ]+(?: [^\t|; ]+)*/g : /[^\t| ]+(?: [^\t| ]+)*/g;
  return lines.flatMap((line, index): PaperLine[] => {
    const cells: Cell[] = [];
    for (const match of line.matchAll(cell)) {
      cells.push({
        text: match[0].trim(),
        xPt: match.index * LETTER_PT,
        widthPt: match[0].length * LETTER_PT,
      });
    }
    const yPt = (index + 1) * PASTED_LINE_PT;
    return cells.length > 0 ? [{ page: 1, yPt, heightPt: PASTED_LINE_PT, cells }] : [];
  });
}

const COLUMN_PT = 120;

/** The lines of a table file; every column stands in its place. */
export function linesFromRows(rows: readonly (readonly string[])[]): PaperLine[] {
  return rows.flatMap((row, index): PaperLine[] => {
    const cells = row
      .map((text, column) => ({
        text: text.trim(),
        xPt: column * COLUMN_PT,
        widthPt: text.trim().length * LETTER_PT,
      }))
      .filter(({ text }) => text !== '');
    const yPt = (index + 1) * PASTED_LINE_PT;
    return cells.length > 0 ? [{ page: 1, yPt, heightPt: PASTED_LINE_PT, cells }] : [];
  });
}

/** A part of a page's width. */
export interface Span {
  leftPt: number;
  rightPt: number;
}

export const spanOf = ({ xPt, widthPt }: Cell): Span => ({ leftPt: xPt, rightPt: xPt + widthPt });

/** How far a cell stands off a column, by its left, its middle or its right, whichever was set in line. */
export function offColumn(cell: Cell, { leftPt, rightPt }: Span): number {
  const own = spanOf(cell);
  return Math.min(
    Math.abs(leftPt - own.leftPt),
    Math.abs(leftPt + rightPt - own.leftPt - own.rightPt) / 2,
    Math.abs(rightPt - own.rightPt),
  );
}

/** The column a cell stands closest to; null where there are none. */
export function nearestColumn<Column extends Span>(cell: Cell, columns: readonly Column[]): Column | null {
  return columns.reduce<Column | null>(
    (best, column) => (best && offColumn(cell, best) <= offColumn(cell, column) ? best : column),
    null,
  );
}

/** Whether some of a line was read with little certainty. */
export const isUnsureLine = (line: PaperLine | undefined): boolean =>
  line?.cells.some(({ isUnsure }) => isUnsure) ?? false;

/** All of a line as one text. */
export function lineText(line: PaperLine): string {
  return line.cells.map(({ text }) => text).join('  ');
}
