/** Counts as tills write them: a return in brackets or with its sign behind it, and counts beside a bar's name. Pure. */
import { readNumberOrNull } from '../quantities/number';

const TAKEN_BACK = /^(?:\((\d+)\)|[-–−]\s*(\d+)|(\d+)\s*[-–−])$/;

/**
 * The number that a cell of counts says, below nothing for what came back; null where it says none.
 *
 * @example countIn('(2)') // -2
 */
export function countIn(cell: string): number | null {
  const back = TAKEN_BACK.exec(cell.trim());
  if (back) return -Number(back[1] ?? back[2] ?? back[3]);
  return readNumberOrNull(cell);
}

const COUNT_FIRST = /^(\d{1,4})\s*[x×*]\s*(\S.*)$/i;
const COUNT_LAST = /^(.*\S)\s*[x×*]\s*(\d{1,4})$/i;

function counted(piece: string): { name: string; count: string } | null {
  const first = COUNT_FIRST.exec(piece);
  if (first) return { name: first[2]!, count: first[1]! };
  const last = COUNT_LAST.exec(piece);
  return last && { name: last[1]!, count: last[2]! };
}

/**
 * A cell that says how many beside the name, "2 x Night Mail; 1 x Signal Red", as one name and count each; null where it
 * says no count, or names anything that `isBar` does not know.
 */
export function countsIn(
  cell: string,
  isBar: (text: string) => boolean,
): { name: string; count: string }[] | null {
  if (isBar(cell)) return null;
  const pieces = cell
    .split(/[;,|\n]|\s\+\s/)
    .map((piece) => piece.trim())
    .filter(Boolean)
    .map(counted);
  const known = pieces.filter((piece) => piece !== null).filter(({ name }) => isBar(name));
  return known.length > 0 && known.length === pieces.length ? known : null;
}
