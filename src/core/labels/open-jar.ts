/**
 * The open jar that stands for the time a product keeps once it is opened (EU cosmetics regulation, Annex VII, 2). In
 * words it is "Opened:"; on a label it is drawn, as one letter that no font holds.
 */

/** What stands for the jar in words: in a web shop's text, in lists and wherever it is read. */
export const OPEN_JAR_WORDS = 'Opened:';
/** What stands for it among the letters of a label; a code point kept free for private use. */
export const OPEN_JAR = '\uE00A';
/** Width for a font size of 1. */
export const OPEN_JAR_WIDTH = 1.12;

type Point = readonly [x: number, y: number];

/** Jar, hollow, the rim on it and the lid that stands open; for a font size of 1, upwards from the baseline. */
const SHAPES: readonly (readonly Point[])[] = [
  [
    [0.1, 0.46],
    [0.1, 0.06],
    [0.16, 0],
    [0.84, 0],
    [0.9, 0.06],
    [0.9, 0.46],
  ],
  [
    [0.82, 0.39],
    [0.82, 0.08],
    [0.18, 0.08],
    [0.18, 0.39],
  ],
  [
    [0.16, 0.5],
    [0.84, 0.5],
    [0.84, 0.57],
    [0.16, 0.57],
  ],
  [
    [0.14, 0.64],
    [0.8, 0.82],
    [0.76, 0.94],
    [0.1, 0.76],
  ],
];

/**
 * The jar as SVG path data, its baseline starting at (x, y) in the unit of the size; filled by the nonzero rule.
 *
 * @example openJarPath(1, 0, 0).startsWith('M0.1 -0.46L0.1 -0.06') // true
 */
export function openJarPath(size: number, x: number, y: number): string {
  const at = ([right, up]: Point) =>
    `${Number((x + right * size).toFixed(3))} ${Number((y - up * size).toFixed(3))}`;
  return SHAPES.map((points) => `M${points.map(at).join('L')}Z`).join('');
}

/**
 * How long something keeps, as its letters are drawn: what is opened stands beside its jar, in one word with it.
 *
 * @example withOpenJar('Opened: 12 M') // '\uE00A12M'
 */
export function withOpenJar(words: string): string {
  if (!words.startsWith(OPEN_JAR_WORDS)) return words;
  return OPEN_JAR + words.slice(OPEN_JAR_WORDS.length).replaceAll(' ', '');
}
