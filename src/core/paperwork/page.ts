/**
 * A supplier's paper as lines of cells, wherever it comes from: text placed on a page, rows of a table file, or
 * pasted text. Positions are in points (1/72 inch) from the top left; pasted text counts letters as points.
 */

export interface Cell {
  text: string;
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
  xPt: number;
  yPt: number;
  widthPt: number;
  heightPt: number;
}

/** Runs on one baseline, within this share of their height, stand on one line. */
const SAME_LINE = 0.5;
/** A gap wider than this share of the height parts two cells; a narrower one is a blank between words. */
const CELL_GAP = 0.9;
const BLANK_GAP = 0.12;
/** Width and height that pasted letters are given, points. */
const LETTER_PT = 6;
const PASTED_LINE_PT = 12;

function toCells(items: TextItem[]): Cell[] {
  const cells: Cell[] = [];
  let endPt = -Infinity;
  for (const item of [...items].sort((a, b) => a.xPt - b.xPt)) {
    const last = cells.at(-1);
    const gap = item.xPt - endPt;
    if (last && gap < CELL_GAP * item.heightPt) {
      const blank = gap > BLANK_GAP * item.heightPt && !/\s$/.test(last.text) ? ' ' : '';
      last.text += blank + item.text;
      last.widthPt = item.xPt + item.widthPt - last.xPt;
    } else cells.push({ text: item.text, xPt: item.xPt, widthPt: item.widthPt });
    endPt = item.xPt + item.widthPt;
  }
  return cells
    .map((cell) => ({ ...cell, text: cell.text.replace(/\s+/g, ' ').trim() }))
    .filter(({ text }) => text !== '');
}

/** The lines of one page from its runs of text, top to bottom. */
export function linesFromItems(page: number, items: readonly TextItem[]): PaperLine[] {
  const rows: { yPt: number; heightPt: number; items: TextItem[] }[] = [];
  for (const item of [...items].sort((a, b) => a.yPt - b.yPt)) {
    if (item.text.trim() === '') continue;
    const last = rows.at(-1);
    if (last && Math.abs(item.yPt - last.yPt) <= SAME_LINE * Math.min(item.heightPt, last.heightPt)) {
      last.items.push(item);
      last.heightPt = Math.max(last.heightPt, item.heightPt);
    } else rows.push({ yPt: item.yPt, heightPt: item.heightPt, items: [item] });
  }
  return rows
    .map(({ yPt, heightPt, items: found }) => ({ page, yPt, heightPt, cells: toCells(found) }))
    .filter(({ cells }) => cells.length > 0);
}

/** The lines of pasted text; tabs, bars and two or more blanks part cells. */
export function linesFromText(text: string): PaperLine[] {
  return text.split(/\r?\n/).flatMap((line, index): PaperLine[] => {
    const cells: Cell[] = [];
    for (const match of line.matchAll(/[^\t| ]+(?: [^\t| ]+)*/g)) {
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

/** All of a line as one text. */
export function lineText(line: PaperLine): string {
  return line.cells.map(({ text }) => text).join('  ');
}
