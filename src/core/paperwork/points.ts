/**
 * The decimal point in a figure's own pixels. A reader of whole pages loses a point or a comma now and then, in one face
 * more than in another; a figure that it read without one is looked at once more, alone.
 */
import type { GreyPicture } from './straighten';

interface Blob {
  left: number;
  right: number;
  top: number;
  bottom: number;
  area: number;
}

/** All of these are in heights of the digits. */
const DIGIT_LEAST = 0.7;
const POINT_HIGH = 0.42;
const POINT_WIDE = 0.4;
const ABOVE_FOOT = 0.22;
const BELOW_FOOT = 0.32;
/** Area of a point, in squares of that height: smaller is grain, and what is clear is larger. */
const POINT_AREA = 0.004;
const CLEAR_AREA = 0.01;
/** Ink before a figure is a digit from this height on. */
const EARLIER_HIGH = 0.5;
/** Pixels of ink that are a blob at all. */
const LEAST_AREA = 3;

/** The value that parts ink from paper best (Otsu's method): it leaves least spread on both sides. */
function inkBelow(grey: ArrayLike<number>): number {
  const counts = new Float64Array(256);
  for (let at = 0; at < grey.length; at++) counts[grey[at]!]!++;
  let [total, sum] = [0, 0];
  for (let value = 0; value < 256; value++) {
    total += counts[value]!;
    sum += value * counts[value]!;
  }
  let [below, sumBelow, best, most] = [0, 0, 128, -1];
  for (let value = 0; value < 256; value++) {
    below += counts[value]!;
    if (below === 0) continue;
    if (below === total) break;
    sumBelow += value * counts[value]!;
    const between = below * (total - below) * (sumBelow / below - (sum - sumBelow) / (total - below)) ** 2;
    if (between > most) [most, best] = [between, value];
  }
  return best + 1;
}

/** Everything of ink that hangs together. */
function blobsOf({ width, height, grey }: GreyPicture): Blob[] {
  const below = inkBelow(grey);
  const seen = new Uint8Array(width * height);
  const blobs: Blob[] = [];
  for (let start = 0; start < seen.length; start++) {
    if (seen[start] || grey[start]! >= below) continue;
    const blob: Blob = { left: width, right: 0, top: height, bottom: 0, area: 0 };
    const stack = [start];
    seen[start] = 1;
    while (stack.length > 0) {
      const at = stack.pop()!;
      const [x, y] = [at % width, Math.floor(at / width)];
      blob.area++;
      blob.left = Math.min(blob.left, x);
      blob.right = Math.max(blob.right, x);
      blob.top = Math.min(blob.top, y);
      blob.bottom = Math.max(blob.bottom, y);
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const [nx, ny] = [x + dx, y + dy];
          const next = ny * width + nx;
          if (nx < 0 || ny < 0 || nx >= width || ny >= height || seen[next] || grey[next]! >= below) continue;
          seen[next] = 1;
          stack.push(next);
        }
    }
    if (blob.area >= LEAST_AREA) blobs.push(blob);
  }
  return blobs;
}

const middleOf = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

export interface PointFound {
  /** Where it stands, pixels from the left of the picture. */
  x: number;
  /** Whether it is as large as a point of these digits; smaller it may be grain. */
  isClear: boolean;
}

/**
 * The decimal point or comma in the picture of one figure, some paper around it; null where none stands between its
 * digits, or several specks could be one.
 *
 * @example
 * pointIn(picture); // { x: 31, isClear: true }: "7.5", and not "75"
 */
export function pointIn(picture: GreyPicture): PointFound | null {
  const blobs = blobsOf(picture);
  const tall = blobs
    .map(({ top, bottom }) => bottom - top + 1)
    .filter((high) => high >= picture.height * 0.4);
  if (tall.length === 0) return null;
  const digitHigh = middleOf(tall);
  const digits = blobs.filter(({ top, bottom }) => bottom - top + 1 >= DIGIT_LEAST * digitHigh);
  const foot = middleOf(digits.map(({ bottom }) => bottom));
  const [first, last] = [
    Math.min(...digits.map(({ left }) => left)),
    Math.max(...digits.map(({ right }) => right)),
  ];
  const points = blobs.filter(({ left, right, top, bottom, area }) => {
    const isSmall =
      bottom - top + 1 <= POINT_HIGH * digitHigh &&
      right - left + 1 <= POINT_WIDE * digitHigh &&
      area >= POINT_AREA * digitHigh ** 2;
    const isAtFoot = bottom >= foot - ABOVE_FOOT * digitHigh && bottom <= foot + BELOW_FOOT * digitHigh;
    return isSmall && isAtFoot && left > first && right < last;
  });
  const clear = points.filter(({ area }) => area >= CLEAR_AREA * digitHigh ** 2);
  const [point] = clear.length > 0 ? clear : points;
  if (!point || (clear.length || points.length) > 1) return null;
  return { x: (point.left + point.right) / 2, isClear: clear.length === 1 };
}

/**
 * Whether ink as high as a digit stands in a figure's picture before the place where its first digit begins: then a digit
 * may have been left off.
 */
export function startsEarlier(picture: GreyPicture, first: number): boolean {
  const blobs = blobsOf(picture);
  const high = Math.max(0, ...blobs.map(({ top, bottom }) => bottom - top + 1));
  return blobs.some(({ right, top, bottom }) => right < first && bottom - top + 1 >= EARLIER_HIGH * high);
}

/** A part of a picture as a picture of its own. */
export function partOf(
  { width, height, grey }: GreyPicture,
  box: { left: number; top: number; right: number; bottom: number },
): GreyPicture {
  const [left, top] = [Math.max(0, Math.floor(box.left)), Math.max(0, Math.floor(box.top))];
  const [right, bottom] = [Math.min(width, Math.ceil(box.right)), Math.min(height, Math.ceil(box.bottom))];
  const [w, h] = [Math.max(0, right - left), Math.max(0, bottom - top)];
  const part = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    part.set(grey.subarray((top + y) * width + left, (top + y) * width + right), y * w);
  return { width: w, height: h, grey: part };
}
