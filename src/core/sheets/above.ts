/** What a bar's title and the rows above its heads say of the batch: "Morning bar - 1200 g oils - 5 % SF". Pure. */
import { isAlone, type SheetFault, type SheetLine } from './cells';
import { roleOf } from './recipe';
import { barName, inOneCell } from './words';

/** Something said of the batch beside the rows of the bar, with where it stands. */
export interface SaidAbove {
  /** Its row, from 0. */
  row: number;
  /** The column of its amount, from 0; null within a title. */
  column: number | null;
  name: string;
  said: string;
}

/** What parts a title: a dash or a stroke with spaces, a comma, brackets. */
const PIECES = /\s+[-–—|•]\s+|[;,]\s+|\s*[()[\]]\s*/;

const isOfBatch = (name: string) => ['superfat', 'fats', 'liquid', 'batch'].includes(roleOf({ name }));

/**
 * A title with what it says of the batch taken out; without a name where it says nothing else.
 *
 * @example inTitle('Fog - 5% SF', 0).name // 'Fog'
 */
export function inTitle(cell: string, row: number): { name: string; says: SaidAbove[] } {
  const pieces = cell.split(PIECES).filter((piece) => piece.trim() !== '');
  const read = pieces.map((piece) => {
    const found = inOneCell(piece);
    return found && isOfBatch(found[0]) ? found : null;
  });
  const kept = pieces.filter((_, piece) => read[piece] === null);
  const says = read.flatMap((found) =>
    found ? [{ row, column: null, name: found[0], said: found[1] }] : [],
  );
  if (says.length === 0) return { name: barName(cell), says };
  return { name: barName(kept.join(' – ')), says };
}

/** What stands above the heads alone in its row, "5 % SF", or as labels with what is beside them: "Superfat:" and "5 %". */
export function saidAbove(rows: readonly (readonly string[])[], head: number): SaidAbove[] {
  return rows.slice(0, Math.max(0, head)).flatMap((row, at) => {
    const alone = isAlone(row) ? row.find((cell) => cell.trim() !== '') : undefined;
    const whole = alone === undefined ? null : inTitle(alone, at);
    if (whole?.name === '') return whole.says;
    return row.flatMap((cell, column) => {
      const name = cell.trim().replace(/[.:\s]+$/, '');
      const said = (row[column + 1] ?? '').trim();
      return said !== '' && isOfBatch(name) ? [{ row: at, column: column + 1, name, said }] : [];
    });
  });
}

/**
 * Adds what was said above to the rows of a bar, but for what a row says as well. Where a row says another superfat or sum
 * of the fats both stand, under names of their own, so that one can be pointed at as no part of the bar. `read` makes a
 * row of what was said, null where it is nothing, or tells why it cannot.
 */
export function addAbove(
  lines: SheetLine[],
  says: readonly SaidAbove[],
  read: (said: SaidAbove) => SheetLine | SheetFault | null,
): SheetFault[] {
  const faults: SheetFault[] = [];
  for (const one of says) {
    const line = read(one);
    if (line === null) continue;
    if ('message' in line) {
      faults.push(line);
      continue;
    }
    const role = roleOf(line);
    const known = lines.find(
      (other) => roleOf(other) === role && (role !== 'batch' || other.name === line.name),
    );
    if (!known) lines.unshift(line);
    else if ((role === 'superfat' || role === 'fats') && figureOf(known) !== figureOf(line))
      lines.unshift({ ...line, role, name: `${line.name} (above)` });
  }
  return faults;
}

const figureOf = ({ amount }: SheetLine) => `${amount.value} ${amount.unit}`;
