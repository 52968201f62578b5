/** Reading plain numbers as people write them: the one place that knows decimal marks and marks of thousands. */

/** A mark between the whole and its decimals; null where nothing tells which one is used. */
export type DecimalMark = ',' | '.' | null;

/** Digits, in groups of three where marks of thousands part them, all by the same mark; then decimals. */
const WRITTEN = /^([+-]?)(\d+|\d{1,3}(?:([ \u00a0\u202f'’.,])\d{3})(?:\3\d{3})*)?(?:([.,])(\d+))?$/;

/** What may be thousands behind one mark: up to three digits, not zero, and three more. */
const LONE_GROUP = /^[1-9]\d{0,2} \d{3}$/;

/**
 * Reads one number with nothing beside it: "12.5", "12,5", "1 250", "1.250,5", "1,250.5", ".5". A comma or point
 * that stands once is decimal, unless `mark` says that the other one is; several are marks of thousands. Answers
 * NaN for anything else, several numbers with blanks between them included.
 *
 * @example readNumber('1.250,5') // 1250.5
 * @example readNumber('1,250', '.') // 1250
 */
export function readNumber(text: string, mark: DecimalMark = null): number {
  const match = WRITTEN.exec(text.trim());
  const [, sign, whole = '', group, decimal, rest] = match ?? [];
  if (!match || (whole === '' && rest === undefined) || (decimal !== undefined && decimal === group))
    return NaN;
  // "1,250" in a text whose decimals stand behind a point is a thousand and more.
  const isThousands =
    mark !== null && decimal !== undefined && decimal !== mark && LONE_GROUP.test(`${whole} ${rest}`);
  const digits = whole.replace(/\D/g, '');
  const value = Number(rest === undefined ? digits : `${digits}${isThousands ? '' : '.'}${rest}`);
  return sign === '-' ? -value : value;
}

/**
 * The same, with null where nothing is written at all.
 *
 * @example readNumberOrNull(' ') // null
 */
export function readNumberOrNull(text: string): number | null {
  return text.trim() === '' ? null : readNumber(text);
}
