/** Bars that stand side by side in one sheet, with an empty column between them: each a sheet of its own. Pure. */
import { isNumeric } from './cells';
import { isFatName } from './words';
import type { WorkbookSheet } from './workbook';

/** Rows with a name and an amount beside it that make a recipe, at least; one of them a fat. */
const LEAST_ROWS = 2;

interface Span {
  from: number;
  /** The first column that is none of it any more. */
  to: number;
}

/** Columns that stand together, between those that are empty throughout. */
function spansOf(rows: readonly (readonly string[])[]): Span[] {
  const width = Math.max(0, ...rows.map((row) => row.length));
  const spans: Span[] = [];
  let from = 0;
  for (let at = 0; at <= width; at++) {
    const isEmpty = at === width || rows.every((row) => (row[at] ?? '').trim() === '');
    if (!isEmpty) continue;
    if (at > from) spans.push({ from, to: at });
    from = at + 1;
  }
  return spans;
}

/** Whether columns hold a recipe by themselves. */
function isRecipe(rows: readonly (readonly string[])[], { from, to }: Span): boolean {
  const named = rows.flatMap((row) => {
    const at = row.findIndex((cell, column) => column >= from && column < to && cell.trim() !== '');
    const isSaid = at >= 0 && !isNumeric(row[at]!) && row.slice(at + 1, to).some(isNumeric);
    return isSaid ? [row[at]!] : [];
  });
  return named.length >= LEAST_ROWS && named.some(isFatName);
}

/** Letters that a spreadsheet names a column by, numbered from 0. */
const letters = (column: number): string =>
  column < 26
    ? String.fromCharCode(65 + column)
    : letters(Math.floor(column / 26) - 1) + letters(column % 26);

/**
 * A sheet as it is, or one for each recipe of several that stand side by side. Each keeps its rows and columns where they
 * are; what is of no recipe stays with the one before it.
 *
 * @example
 * besideApart({ name: 'Bars', rows }).map(({ name }) => name); // ['Bars, A to B', 'Bars, D to E']
 */
export function besideApart(sheet: WorkbookSheet): WorkbookSheet[] {
  const spans = spansOf(sheet.rows);
  const recipes = spans.filter((span) => isRecipe(sheet.rows, span));
  if (recipes.length < 2) return [sheet];
  return recipes.map((span, at) => {
    const [from, to] = [at === 0 ? 0 : span.from, recipes[at + 1]?.from ?? Infinity];
    const rows = sheet.rows.map((row) =>
      row.map((cell, column) => (column >= from && column < to ? cell : '')),
    );
    return { ...sheet, name: `${sheet.name}, ${letters(span.from)} to ${letters(span.to - 1)}`, rows };
  });
}
