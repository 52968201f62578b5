/** A recipe as it is typed or pasted: "500 g olive, 150 coconut, 33 % water, 2 tsp pink clay; makes 12 bars". Pure. */
import { decimalMarkOf } from '../paperwork/figures';
import { settleMark } from './marks';
import { readCell, type SheetAmount, type SheetUnit } from './amounts';
import type { SheetBar, SheetFault, SheetLine } from './cells';
import { barName, isSection, withoutBullet } from './words';

/** Ends a piece: a line, a semicolon, a plus, or a comma that stands in no number. */
const APART = /\r?\n|;|\s\+\s|\t|,(?!\d)|(?<!\d),/;
/** Says how many bars it makes, and names nothing. */
const MAKES =
  /^(?:makes?|yields?|gives|for|ergibt|fur|pour|donne|per)\s+(\d{1,4})\s+(?:bars?|stuck|pains?|pezzi|stuks)?$/i;
/** A first line of words alone, with more below it. */
const TITLE = /^\s*([^\d\n,;]*\p{L}[^\d\n,;]*)\r?\n/u;
const OF = /^(?:of|de|d[’']|di|von|van)\s+/i;
const MOST_WORDS = 6;

interface Piece {
  name: string;
  amount: SheetAmount;
}

const isName = (words: string) => /\p{L}{2}/u.test(words);

/** The longest beginning, or else end, of a piece that reads as an amount; the rest names what it is of. */
function readPiece(piece: string, unit: SheetUnit): Piece | null {
  const words = piece
    .replace(/\s*[:=]\s*/g, ' ')
    .split(/\s+/)
    .filter(Boolean);
  const at = (from: number, to: number) => words.slice(from, to).join(' ');
  const amountIn = (text: string): SheetAmount | null => {
    const read = /\p{N}|[½⅓⅔¼¾⅛]|pinch|prise|drop/iu.test(text) ? readCell(text, unit) : null;
    return read === null || 'error' in read ? null : read;
  };
  for (let count = Math.min(MOST_WORDS, words.length - 1); count > 0; count--) {
    const amount = amountIn(at(0, count));
    const name = at(count, words.length)
      .replace(OF, '')
      .replace(/^[–-]\s*/, '');
    if (amount && isName(name)) return { name, amount };
  }
  for (let count = Math.min(MOST_WORDS, words.length - 1); count > 0; count--) {
    const amount = amountIn(at(words.length - count, words.length));
    const name = at(0, words.length - count).replace(/\s*[–-]$/, '');
    if (amount && isName(name)) return { name, amount };
  }
  return null;
}

/** "honey, 1 tbsp": a name whose amount stands behind a comma is one piece with it. */
function joined(pieces: readonly string[], unit: SheetUnit): string[] {
  const isAmount = (piece: string) => {
    const read = /\p{N}|[½⅓⅔¼¾⅛]/u.test(piece) && /^[\d½⅓⅔¼¾⅛]/.test(piece) ? readCell(piece, unit) : null;
    return read !== null && !('error' in read);
  };
  return pieces.flatMap((piece, at) => {
    const next = pieces[at + 1];
    if (next !== undefined && isName(piece) && !/\d/.test(piece) && isAmount(next))
      return [`${piece} ${next}`];
    const before = pieces[at - 1];
    const isTaken = before !== undefined && isName(before) && !/\d/.test(before) && isAmount(piece);
    return isTaken ? [] : [piece];
  });
}

export interface TextRecipe {
  bar: SheetBar;
  /** How many bars it says that it makes; null where it says nothing. */
  bars: number | null;
  /** Pieces that say no amount, or none that can be read. `row` is the place of the piece, from 1. */
  faults: SheetFault[];
}

/**
 * A recipe typed as text. A bare number is in `unit`. A first line without a figure is its name.
 *
 * @example
 * readText('700 olive, 300 coconut', 'g').bar.lines.length; // 2
 */
export function readText(text: string, unit: SheetUnit): TextRecipe {
  const pieces = joined(
    text.split(APART).map((piece) => withoutBullet(piece).trim()),
    unit,
  );
  const mark = decimalMarkOf([text]);
  const title = TITLE.exec(text)?.[1]?.trim();
  const lines: SheetLine[] = [];
  const faults: SheetFault[] = [];
  let [name, bars]: [string, number | null] = ['', null];
  for (const [at, piece] of pieces.entries()) {
    if (piece === '' || isSection(piece)) continue;
    const makes = MAKES.exec(piece);
    const settled = makes ? piece : settleMark(piece, unit, mark);
    if (typeof settled !== 'string') {
      faults.push({ row: at + 1, message: settled.error });
      continue;
    }
    const read = makes ? null : readPiece(settled, unit);
    if (makes) bars = Number(makes[1]);
    else if (read) lines.push({ row: at + 1, ...read, said: piece, column: null });
    else if (piece === title && name === '') name = barName(piece);
    else faults.push({ row: at + 1, message: `“${piece}” says no amount. Say how much, or leave it out.` });
  }
  return { bar: { row: 1, name: name || 'A bar', note: '', lines }, bars, faults };
}
