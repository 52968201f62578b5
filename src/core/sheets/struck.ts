/** Cells that are struck out in their sheet: somebody has to say what becomes of their row. Pure. */

const BEFORE = 'struck out: ';

/**
 * What a cell that is struck out says: no name and no amount.
 *
 * @example struckOut('Coconut oil') // 'struck out: Coconut oil'
 */
export const struckOut = (text: string): string => (text === '' ? '' : BEFORE + text);

/** What to do about a row whose cell is struck out; null for any other. */
export const struckRemedy = (cell: string): string | null =>
  cell.startsWith(BEFORE)
    ? `“${cell}”: press the row’s number to leave it out, or take the line through it away in the file.`
    : null;
