/** Straightening and cleaning a picture of a page before its text is read. Grey values from 0 (black) to 255. */

export interface GreyPicture {
  width: number;
  height: number;
  grey: Uint8Array | Uint8ClampedArray;
}

/** A page photographed by hand leans by less than this, degrees. */
const MOST_DEGREES = 12;
const STEP_DEGREES = 0.25;
/** Wide enough for lines to show, small enough to try many angles. */
const TRIED_WIDTH = 400;
const BINS_PER_ROW = 1;

function smaller({ width, height, grey }: GreyPicture): GreyPicture {
  const by = Math.max(1, Math.floor(width / TRIED_WIDTH));
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const small = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let darkest = 255;
      for (let dy = 0; dy < by; dy++) {
        for (let dx = 0; dx < by; dx++)
          darkest = Math.min(darkest, grey[(y * by + dy) * width + x * by + dx]!);
      }
      small[y * w + x] = darkest;
    }
  }
  return { width: w, height: h, grey: small };
}

/** How sharply dark points fall into rows when the picture is looked at under an angle. */
function sharpness(points: readonly (readonly [number, number])[], degrees: number, height: number): number {
  const tangent = Math.tan((degrees * Math.PI) / 180);
  const rows = new Float64Array(height * 2 * BINS_PER_ROW);
  for (const [x, y] of points) {
    const row = Math.round((y - x * tangent) * BINS_PER_ROW + height / 2);
    if (row >= 0 && row < rows.length) rows[row]!++;
  }
  let sum = 0;
  for (const count of rows) sum += count * count;
  return sum;
}

/** A threshold between paper and ink: halfway between the mean and the darkest hundredth. */
function inkBelow({ grey }: GreyPicture): number {
  const counts = new Uint32Array(256);
  for (const value of grey) counts[value]!++;
  let mean = 0;
  for (let value = 0; value < 256; value++) mean += value * counts[value]!;
  mean /= grey.length;
  let seen = 0;
  let darkest = 0;
  while (darkest < 255 && (seen += counts[darkest]!) < grey.length / 100) darkest++;
  return (mean + darkest) / 2;
}

/**
 * By how many degrees the lines of a page lean, clockwise; 0 where no lean shows more than straight lines do.
 *
 * @example
 * skewOf(picture); // 2: turn it back by 2 degrees
 */
export function skewOf(picture: GreyPicture): number {
  const small = smaller(picture);
  const below = inkBelow(small);
  const points: [number, number][] = [];
  for (let y = 0; y < small.height; y++) {
    for (let x = 0; x < small.width; x++) if (small.grey[y * small.width + x]! < below) points.push([x, y]);
  }
  let best = { degrees: 0, sharp: sharpness(points, 0, small.height) };
  for (let degrees = -MOST_DEGREES; degrees <= MOST_DEGREES; degrees += STEP_DEGREES) {
    const sharp = sharpness(points, degrees, small.height);
    if (sharp > best.sharp) best = { degrees, sharp };
  }
  return best.degrees;
}

/** Stretches grey values so that paper is white and ink black; in place. */
export function clean({ grey }: GreyPicture): void {
  const counts = new Uint32Array(256);
  for (const value of grey) counts[value]!++;
  const at = (share: number) => {
    let seen = 0;
    let value = 0;
    while (value < 255 && (seen += counts[value]!) < grey.length * share) value++;
    return value;
  };
  const [black, white] = [at(0.01), at(0.5)];
  const span = Math.max(1, white - black);
  for (let index = 0; index < grey.length; index++) {
    const stretched = ((grey[index]! - black) * 255) / span;
    grey[index] = stretched < 0 ? 0 : stretched > 255 ? 255 : stretched;
  }
}
