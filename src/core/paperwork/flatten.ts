/** A page as it lies in a photograph: its four corners, the page drawn flat, and its paper made evenly bright. */
import type { GreyPicture } from './straighten';

export interface Point {
  x: number;
  y: number;
}

/** Of a page, from its upper left corner on, as the hands of a clock go. */
export type Corners = readonly [Point, Point, Point, Point];

/** Wide enough to see edges, small enough to look quickly. */
const LOOKED_WIDTH = 300;
/** Ink is thinner than this, in points of the small picture: it is covered by the paper around it. */
const INK_COVER = 3;
/** Neighbours on paper differ by less than this, shadows and all; at the edge of a page they differ by more. */
const MOST_STEP = 5;
/** A page fills this share of a photograph at least, and its outline this share of the region that was found. */
const LEAST_SHARE = 0.15;
const LEAST_FILLED = 0.88;
/** So near to the border of the photograph, in shares of its width, a side is where the photograph ends. */
const BORDER_SHARE = 0.015;
/** Corners of a page seen at a slant are between these, degrees. */
const LEAST_CORNER = 50;
const MOST_CORNER = 130;
/** A hull is thinned to so many points before four are chosen. */
const MOST_HULL = 26;

function smaller({ width, height, grey }: GreyPicture): { small: GreyPicture; by: number } {
  const by = Math.max(1, Math.floor(width / LOOKED_WIDTH));
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const small = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let dy = 0; dy < by; dy++)
        for (let dx = 0; dx < by; dx++) sum += grey[(y * by + dy) * width + x * by + dx]!;
      small[y * w + x] = sum / (by * by);
    }
  return { small: { width: w, height: h, grey: small }, by };
}

/** The greatest value around each point, along one way. */
function greatestAlong(
  grey: Uint8Array,
  lines: number,
  length: number,
  at: (l: number, p: number) => number,
) {
  const out = new Uint8Array(grey.length);
  for (let line = 0; line < lines; line++)
    for (let place = 0; place < length; place++) {
      let most = 0;
      const to = Math.min(length - 1, place + INK_COVER);
      for (let near = Math.max(0, place - INK_COVER); near <= to; near++)
        most = Math.max(most, grey[at(line, near)]!);
      out[at(line, place)] = most;
    }
  return out;
}

/** The picture with its ink covered by the paper around it. */
function withoutInk({ width, height, grey }: GreyPicture): Uint8Array {
  const across = greatestAlong(Uint8Array.from(grey), height, width, (line, place) => line * width + place);
  return greatestAlong(across, width, height, (line, place) => place * width + line);
}

/** Everything that can be reached from the middle without a step as an edge has it. */
function regionAround(grey: Uint8Array, width: number, height: number): Uint8Array {
  const inside = new Uint8Array(width * height);
  const start = Math.floor(height / 2) * width + Math.floor(width / 2);
  const stack = [start];
  inside[start] = 1;
  while (stack.length > 0) {
    const at = stack.pop()!;
    const x = at % width;
    const near = [x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1, at - width, at + width];
    for (const next of near) {
      if (next < 0 || next >= inside.length || inside[next]) continue;
      if (Math.abs(grey[next]! - grey[at]!) > MOST_STEP) continue;
      inside[next] = 1;
      stack.push(next);
    }
  }
  return inside;
}

const cross = (o: Point, a: Point, b: Point) => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

/** The hull of points that come in rows from above, each row by its outermost two. */
function hullOf(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (of: readonly Point[]) => {
    const kept: Point[] = [];
    for (const point of of) {
      while (kept.length > 1 && cross(kept.at(-2)!, kept.at(-1)!, point) <= 0) kept.pop();
      kept.push(point);
    }
    return kept.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** A hull with fewer points: the one that tells least goes first. */
function thinned(hull: readonly Point[]): Point[] {
  const kept = [...hull];
  while (kept.length > MOST_HULL) {
    let [least, at] = [Infinity, 0];
    kept.forEach((point, place) => {
      const area = Math.abs(cross(kept.at(place - 1)!, point, kept[(place + 1) % kept.length]!));
      if (area < least) [least, at] = [area, place];
    });
    kept.splice(at, 1);
  }
  return kept;
}

function areaOf(points: readonly Point[]): number {
  let sum = 0;
  points.forEach(({ x, y }, at) => {
    const next = points[(at + 1) % points.length]!;
    sum += x * next.y - next.x * y;
  });
  return Math.abs(sum) / 2;
}

/** The four points of a hull that hold the most of it. */
function fourOf(hull: readonly Point[]): Point[] | null {
  let [most, best]: [number, Point[] | null] = [0, null];
  const n = hull.length;
  for (let a = 0; a < n - 3; a++)
    for (let b = a + 1; b < n - 2; b++)
      for (let c = b + 1; c < n - 1; c++)
        for (let d = c + 1; d < n; d++) {
          const four = [hull[a]!, hull[b]!, hull[c]!, hull[d]!];
          const area = areaOf(four);
          if (area > most) [most, best] = [area, four];
        }
  return best;
}

function cornerDegrees(before: Point, at: Point, after: Point): number {
  const angle = Math.abs(
    Math.atan2(before.y - at.y, before.x - at.x) - Math.atan2(after.y - at.y, after.x - at.x),
  );
  const degrees = (angle * 180) / Math.PI;
  return degrees > 180 ? 360 - degrees : degrees;
}

/** In the order of `Corners`: the first is nearest to the upper left. */
function inOrder(four: readonly Point[]): Corners {
  const middle = { x: four.reduce((s, p) => s + p.x, 0) / 4, y: four.reduce((s, p) => s + p.y, 0) / 4 };
  const around = [...four].sort(
    (a, b) => Math.atan2(a.y - middle.y, a.x - middle.x) - Math.atan2(b.y - middle.y, b.x - middle.x),
  );
  const first = around.reduce(
    (best, p, at) => (p.x + p.y < around[best]!.x + around[best]!.y ? at : best),
    0,
  );
  const [a, b, c, d] = [0, 1, 2, 3].map((step) => around[(first + step) % 4]!);
  return [a!, b!, c!, d!];
}

/**
 * Where the page lies in a photograph, in its pixels; null where no page with four sides is seen around its middle, as
 * where the photograph shows a part of it.
 *
 * @example
 * pageCorners(photograph); // [{ x: 210, y: 190 }, { x: 1320, y: 170 }, …]
 */
export function pageCorners(picture: GreyPicture): Corners | null {
  const { small, by } = smaller(picture);
  const { width, height } = small;
  const inside = regionAround(withoutInk(small), width, height);
  const edge: Point[] = [];
  let count = 0;
  for (let y = 0; y < height; y++) {
    const row = inside.subarray(y * width, (y + 1) * width);
    const [from, to] = [row.indexOf(1), row.lastIndexOf(1)];
    if (from < 0) continue;
    edge.push({ x: from, y }, { x: to, y });
    for (let x = from; x <= to; x++) count++;
  }
  const four = fourOf(thinned(hullOf(edge)));
  if (!four || areaOf(four) < LEAST_SHARE * width * height) return null;
  const filled = count / areaOf(four);
  if (filled < LEAST_FILLED || filled > 2 - LEAST_FILLED) return null;
  const corners = inOrder(four);
  const isRight = corners.every((corner, at) => {
    const degrees = cornerDegrees(corners.at(at - 1)!, corner, corners[(at + 1) % 4]!);
    return degrees > LEAST_CORNER && degrees < MOST_CORNER;
  });
  const near = BORDER_SHARE * width;
  const borders = ({ x, y }: Point) => [x < near, y < near, x > width - 1 - near, y > height - 1 - near];
  const isCut = corners.some((corner, at) => {
    const next = borders(corners[(at + 1) % 4]!);
    return borders(corner).some((touches, side) => touches && next[side]);
  });
  if (!isRight || isCut) return null;
  // Covering the ink with paper moved every edge outwards by as much.
  const [cx, cy] = [corners.reduce((s, p) => s + p.x, 0) / 4, corners.reduce((s, p) => s + p.y, 0) / 4];
  const inwards = (value: number, centre: number) =>
    (value - Math.sign(value - centre) * INK_COVER + 0.5) * by;
  const [a, b, c, d] = corners.map(({ x, y }) => ({ x: inwards(x, cx), y: inwards(y, cy) }));
  return [a!, b!, c!, d!];
}

/** From places on the flat page, 0 to 1 each way, to places in the photograph. */
function projection([a, b, c, d]: Corners): (u: number, v: number) => Point {
  const [dx1, dx2, sx] = [b.x - c.x, d.x - c.x, a.x - b.x + c.x - d.x];
  const [dy1, dy2, sy] = [b.y - c.y, d.y - c.y, a.y - b.y + c.y - d.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  const [ax, bx] = [b.x - a.x + g * b.x, d.x - a.x + h * d.x];
  const [ay, by] = [b.y - a.y + g * b.y, d.y - a.y + h * d.y];
  return (u, v) => {
    const w = g * u + h * v + 1;
    return { x: (ax * u + bx * v + a.x) / w, y: (ay * u + by * v + a.y) / w };
  };
}

const lengthOf = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

/**
 * The page between four corners of a photograph, drawn flat at a width in pixels; each point from the four around it.
 *
 * @example
 * flattened(photograph, corners, 1800).width; // 1800
 */
export function flattened(picture: GreyPicture, corners: Corners, width: number): GreyPicture {
  const [a, b, c, d] = corners;
  const across = Math.max(lengthOf(a, b), lengthOf(d, c));
  const down = Math.max(lengthOf(a, d), lengthOf(b, c));
  const height = Math.max(1, Math.round((width * down) / across));
  const place = projection(corners);
  const flat = new Uint8ClampedArray(width * height);
  const { grey } = picture;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const from = place((x + 0.5) / width, (y + 0.5) / height);
      const px = Math.min(Math.max(0, from.x - 0.5), picture.width - 1.001);
      const py = Math.min(Math.max(0, from.y - 0.5), picture.height - 1.001);
      const [left, top] = [Math.floor(px), Math.floor(py)];
      const [fx, fy] = [px - left, py - top];
      const at = top * picture.width + left;
      const upper = grey[at]! * (1 - fx) + grey[at + 1]! * fx;
      const lower = grey[at + picture.width]! * (1 - fx) + grey[at + picture.width + 1]! * fx;
      flat[y * width + x] = upper * (1 - fy) + lower * fy;
    }
  return { width, height, grey: flat };
}

/** Squares that the light is measured in, of the picture's width; and which of their points is paper. */
const SQUARE_SHARE = 1 / 36;
const PAPER_SHARE = 0.8;

/** The light on the paper, square by square: the grey that four fifths of a square's points are below. */
function lightOf(
  { width, height, grey }: GreyPicture,
  side: number,
): { columns: number; rows: number; light: Float32Array } {
  const [columns, rows] = [Math.ceil(width / side), Math.ceil(height / side)];
  const light = new Float32Array(columns * rows);
  const counts = new Uint32Array(256);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      counts.fill(0);
      const [right, bottom] = [Math.min(width, (column + 1) * side), Math.min(height, (row + 1) * side)];
      let points = 0;
      for (let y = row * side; y < bottom; y++)
        for (let x = column * side; x < right; x++, points++) counts[grey[y * width + x]!]!++;
      let [seen, value] = [0, 0];
      while (value < 255 && (seen += counts[value]!) < PAPER_SHARE * points) value++;
      light[row * columns + column] = value;
    }
  return { columns, rows, light };
}

/** A square that is darker than those around it is full of ink: it is lit as they are. */
function withoutDark({ columns, rows, light }: ReturnType<typeof lightOf>): Float32Array {
  const even = new Float32Array(light.length);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const around: number[] = [];
      for (let r = Math.max(0, row - 1); r <= Math.min(rows - 1, row + 1); r++)
        for (let c = Math.max(0, column - 1); c <= Math.min(columns - 1, column + 1); c++)
          around.push(light[r * columns + c]!);
      around.sort((p, q) => p - q);
      even[row * columns + column] = Math.max(light[row * columns + column]!, around[around.length >> 1]!);
    }
  return even;
}

/**
 * Makes the paper of a page evenly bright, whatever shadow lies on it: every point in shares of the light that its part
 * of the page has. In place.
 *
 * @example
 * evened(picture); // the half that lay in the shade reads as the other does
 */
export function evened(picture: GreyPicture): void {
  const { width, height, grey } = picture;
  const side = Math.max(8, Math.round(width * SQUARE_SHARE));
  const measured = lightOf(picture, side);
  const { columns, rows } = measured;
  const light = withoutDark(measured);
  for (let y = 0; y < height; y++) {
    const fromRow = Math.min(Math.max(0, (y + 0.5) / side - 0.5), rows - 1);
    const row = Math.min(Math.floor(fromRow), Math.max(0, rows - 2));
    const down = rows > 1 ? fromRow - row : 0;
    for (let x = 0; x < width; x++) {
      const fromColumn = Math.min(Math.max(0, (x + 0.5) / side - 0.5), columns - 1);
      const column = Math.min(Math.floor(fromColumn), Math.max(0, columns - 2));
      const along = columns > 1 ? fromColumn - column : 0;
      const at = row * columns + column;
      const nextColumn = columns > 1 ? 1 : 0;
      const nextRow = rows > 1 ? columns : 0;
      const upper = light[at]! * (1 - along) + light[at + nextColumn]! * along;
      const lower = light[at + nextRow]! * (1 - along) + light[at + nextRow + nextColumn]! * along;
      const paper = Math.max(1, upper * (1 - down) + lower * down);
      const point = y * width + x;
      grey[point] = Math.min(255, (255 * grey[point]!) / paper);
    }
  }
}
