/** Taking the ruled lines of a table out of a picture before its text is read: with them no row of it is found. In place. */
import type { GreyPicture } from './straighten';

/** Darker than this is ink, once the picture is cleaned. */
const INK_BELOW = 200;
/** Lines are longer than this share of the page's width: no letter of its text is. */
const LEAST_ACROSS = 1 / 20;
const LEAST_DOWN = 1 / 18;
/** A line is thinner than this share of the width; strokes of a heading are thicker. */
const MOST_THICK = 1 / 130;
/** Breaks of so many pixels belong to the line: dots, dust, an edge that leans. */
const MOST_BREAK = 1;

/** One way of walking through a picture: along lines, and across them. */
interface Walk {
  lines: number;
  length: number;
  at: (line: number, place: number) => number;
}

/** Length of the ink through a point, across the line that is followed. */
function thickness(
  isInk: Uint8Array,
  { lines, at }: Walk,
  line: number,
  place: number,
  most: number,
): [number, number] {
  let from = line;
  let to = line;
  while (from > 0 && line - from <= most && isInk[at(from - 1, place)]) from--;
  while (to < lines - 1 && to - line <= most && isInk[at(to + 1, place)]) to++;
  return [from, to];
}

/** Marks what belongs to long thin lines that run one way; `isLong` is told of every point in a long run, however thick. */
function markLines(
  isInk: Uint8Array,
  isRule: Uint8Array,
  isLong: Uint8Array,
  walk: Walk,
  leastLong: number,
  mostThick: number,
): void {
  const { lines, length, at } = walk;
  const markRun = (line: number, from: number, to: number) => {
    if (to - from < leastLong) return;
    for (let place = from; place < to; place++) {
      if (!isInk[at(line, place)]) continue;
      isLong[at(line, place)]!++;
      const [first, last] = thickness(isInk, walk, line, place, mostThick);
      if (last - first + 1 > mostThick) continue;
      for (let across = first; across <= last; across++) isRule[at(across, place)] = 1;
    }
  };
  for (let line = 0; line < lines; line++) {
    let from = 0;
    let end = -1;
    for (let place = 0; place < length; place++) {
      if (!isInk[at(line, place)]) continue;
      if (end < 0 || place - end > MOST_BREAK) {
        if (end >= 0) markRun(line, from, end + 1);
        from = place;
      }
      end = place;
    }
    if (end >= 0) markRun(line, from, end + 1);
  }
}

/**
 * Wipes long thin lines out of a cleaned picture, across and down, and the pale edge beside them; letters that stand apart
 * from them stay whole. Answers how many of its points were a line's.
 *
 * @example
 * withoutRules(picture); // its table reads as columns of text
 */
export function withoutRules({ width, height, grey }: GreyPicture): number {
  const isInk = new Uint8Array(width * height);
  for (let at = 0; at < isInk.length; at++) isInk[at] = grey[at]! < INK_BELOW ? 1 : 0;
  const isRule = new Uint8Array(width * height);
  const mostThick = Math.max(3, Math.round(width * MOST_THICK));
  const across: Walk = { lines: height, length: width, at: (line, place) => line * width + place };
  const down: Walk = { lines: width, length: height, at: (line, place) => place * width + line };
  const isLong = new Uint8Array(width * height);
  markLines(isInk, isRule, isLong, across, Math.round(width * LEAST_ACROSS), mostThick);
  markLines(isInk, isRule, isLong, down, Math.round(width * LEAST_DOWN), mostThick);
  const wiped: number[] = [];
  // Where lines cross, both are thick.
  for (let at = 0; at < isRule.length; at++) if (isRule[at] || isLong[at]! > 1) wiped.push(at);
  for (const at of wiped) {
    grey[at] = 255;
    isInk[at] = 0;
  }
  wipeBeside({ width, height, grey }, isInk, wiped);
  return wiped.length;
}

/** How far beside a line its blur and crumbs lie, points; and how many points a crumb has at most. */
const BESIDE = 3;
const MOST_CRUMB = 60;

/** Ink that hangs together with a point, as far as it is no more than a crumb; null where it is more. */
function crumbAt({ width, height }: GreyPicture, isInk: Uint8Array, start: number): number[] | null {
  const found = [start];
  const seen = new Set(found);
  for (let next = 0; next < found.length; next++) {
    const at = found[next]!;
    const [x, y] = [at % width, Math.floor(at / width)];
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const [nx, ny] = [x + dx, y + dy];
        const other = ny * width + nx;
        if (nx < 0 || ny < 0 || nx >= width || ny >= height || !isInk[other] || seen.has(other)) continue;
        seen.add(other);
        found.push(other);
      }
    if (found.length > MOST_CRUMB) return null;
  }
  return found;
}

/** Wipes the blur of lines and the crumbs that are left of them; letters that they touch are larger than crumbs. */
function wipeBeside(picture: GreyPicture, isInk: Uint8Array, wiped: readonly number[]): void {
  const { width, height, grey } = picture;
  for (const at of wiped) {
    const [x, y] = [at % width, Math.floor(at / width)];
    for (let ny = Math.max(0, y - BESIDE); ny <= Math.min(height - 1, y + BESIDE); ny++)
      for (let nx = Math.max(0, x - BESIDE); nx <= Math.min(width - 1, x + BESIDE); nx++) {
        const other = ny * width + nx;
        if (grey[other] === 255) continue;
        if (!isInk[other]) grey[other] = 255;
        else
          for (const one of crumbAt(picture, isInk, other) ?? []) {
            grey[one] = 255;
            isInk[one] = 0;
          }
      }
  }
}
