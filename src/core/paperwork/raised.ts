/**
 * Marks set small and high, which lead to a note: written as raised signs (¹), so that no figure takes their digits for
 * its own and no name ends in them.
 */

const SIGNS = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** What a mark may be made of where it is set small: digits of notes, and stars. */
const MARK = /^[\d*†‡,; ]{1,6}$/;

/** A mark is at most so high, and ends at most so far from what it belongs to, in heights of that. */
const MOST_HEIGHT = 0.88;
const MOST_GAP = 0.2;
/** How far its foot stands above the other's, in heights of that. */
const RISE = { least: 0.12, most: 0.75 };

interface Placed {
  text: string;
  xPt: number;
  yPt: number;
  widthPt: number;
  heightPt: number;
}

/** One raised sign, and several that stand together, as sources of patterns. */
export const SIGN = '[⁰¹²³⁴-⁹]';
export const SIGNS_TOGETHER = `${SIGN}(?:[,˒ ]?${SIGN})*`;
const RAISED = new RegExp(SIGNS_TOGETHER, 'g');

/** A text without the raised signs in it. */
export const withoutRaised = (text: string): string => text.replace(RAISED, '');

/** Marks of footnotes at an end. */
export const FOOTNOTE = /(?:\s*(?:\*+|†|‡|\(\d\)))+$/;

const raised = (mark: string): string =>
  mark
    .replace(/^[,; ]+|[,; ]+$/g, '')
    .replace(/[,; ]+/g, ',')
    .replace(/\d/g, (digit) => SIGNS[Number(digit)]!);

/**
 * What is set small and high: a mark's digits as raised signs, anything else as it is.
 *
 * @example
 * asMark('1, 2'); // '¹,²'
 * asMark('st'); // 'st'
 */
export const asMark = (text: string): string => (MARK.test(text) ? raised(text) : text);

function belongs(mark: Placed, { xPt, yPt, widthPt, heightPt }: Placed): boolean {
  const gap = mark.xPt - (xPt + widthPt);
  const rise = (yPt - mark.yPt) / heightPt;
  return (
    mark.heightPt <= MOST_HEIGHT * heightPt &&
    Math.abs(gap) <= MOST_GAP * heightPt &&
    rise >= RISE.least &&
    rise <= RISE.most
  );
}

/** Raised signs as the digits that they are. */
export const digitsOf = (mark: string): string =>
  mark.replace(new RegExp(SIGN, 'g'), (sign) => String(SIGNS.indexOf(sign)));

/** Runs of a page's text with their marks as raised signs, on the line of what they stand at. */
export function withMarks<Item extends Placed>(items: readonly Item[]): Item[] {
  const highest = items.reduce((most, { heightPt }) => Math.max(most, heightPt), 0);
  return items.map((item) => {
    if (item.heightPt > MOST_HEIGHT * highest || !MARK.test(item.text)) return item;
    const at = items.find((other) => belongs(item, other));
    return at ? { ...item, text: raised(item.text), yPt: at.yPt } : item;
  });
}
