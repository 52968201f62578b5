/**
 * A block cut into cells: from its middle (or a column's axis) out to the side, from bottom to top, and from the middle to
 * an end. Both halves of width and length are alike, so a cell stands for all four of its places.
 */
import type { Faces } from './surroundings';
import type { Fineness, MouldShape } from './types';

export interface Grid {
  across: number;
  up: number;
  along: number;
  /** Of each cell, m3; the whole block's volume is their sum. */
  volume: Float64Array;
  /** Area over distance between a cell and the next further out, the next above and the next towards an end, m; to be multiplied with a conductivity. */
  outward: Float64Array;
  upward: Float64Array;
  endward: Float64Array;
  /** Areas of the faces that meet the side, the top, the bottom and both ends, m2; zero elsewhere. */
  sideArea: Float64Array;
  topArea: Float64Array;
  bottomArea: Float64Array;
  endArea: Float64Array;
  /** Distance from a cell's middle to its outer faces, m; and the way heat goes within to an end. */
  halfAcross: number;
  halfUp: number;
  toEnd: number;
}

const MM = 1e-3;
/** Cells grow from an end, where it is steep, to the middle by this factor. */
const GROWTH = 1.3;

/** Lengths of cells from the middle to an end, m. */
function cellLengths(half: number, along: number): number[] {
  const parts = Array.from({ length: along }, (_, at) => GROWTH ** (along - 1 - at));
  const whole = parts.reduce((sum, one) => sum + one, 0);
  return parts.map((one) => (one / whole) * half);
}

/** Cuts a mould filled to a height into cells. */
export function gridOf(
  shape: MouldShape,
  { across, up, ...fine }: Omit<Fineness, 'stepS' | 'stepConverted'>,
): Grid {
  const isColumn = shape.form === 'column';
  const [halfWidth, height, length] = [shape.widthMm / 2, shape.heightMm, shape.lengthMm].map(
    (mm) => mm * MM,
  );
  const dx = halfWidth! / across;
  const dz = height! / up;
  const along = isColumn ? 1 : fine.along;
  const plane = across * up;
  const dy = cellLengths(length! / 2, along);
  const count = plane * along;
  const make = () => new Float64Array(count);
  const grid: Grid = {
    across,
    up,
    along,
    volume: make(),
    outward: make(),
    upward: make(),
    endward: make(),
    sideArea: make(),
    topArea: make(),
    bottomArea: make(),
    endArea: make(),
    halfAcross: dx / 2,
    halfUp: dz / 2,
    toEnd: dy.at(-1)! / 2,
  };
  for (let at = 0; at < count; at++) {
    const [row, col, place] = [Math.floor(at / across) % up, at % across, Math.floor(at / plane)];
    // A column's cells are rings.
    const outerArea = isColumn ? 2 * Math.PI * (col + 1) * dx * dz : 4 * dy[place]! * dz;
    const floorArea = isColumn ? Math.PI * (2 * col + 1) * dx * dx : 4 * dy[place]! * dx;
    grid.volume[at] = floorArea * dz;
    if (col < across - 1) grid.outward[at] = outerArea / dx;
    else grid.sideArea[at] = outerArea;
    if (row < up - 1) grid.upward[at] = floorArea / dz;
    else grid.topArea[at] = floorArea;
    if (row === 0) grid.bottomArea[at] = floorArea;
    if (place < along - 1) grid.endward[at] = (8 * dx * dz) / (dy[place]! + dy[place + 1]!);
    else if (!isColumn) grid.endArea[at] = 4 * dx * dz;
  }
  return grid;
}

/** Conductance of a face from a cell's middle to the air, W/K. */
const through = (area: number, resistance: number, way: number, k: number) =>
  area === 0 ? 0 : area / (resistance + way / k);

export interface Conductances {
  outward: Float64Array;
  upward: Float64Array;
  endward: Float64Array;
  /** To what is around, at the side, the ends, top and bottom. */
  side: Float64Array;
  end: Float64Array;
  top: Float64Array;
  bottom: Float64Array;
}

/** Conductances of a grid whose cells conduct as `k` says, W/(m K), within its faces; W/K. */
export function conductancesOf(grid: Grid, k: Float64Array, { side, top, bottom }: Faces): Conductances {
  const { across, up } = grid;
  const between = (here: number, there: number) => (2 * k[here]! * k[there]!) / (k[here]! + k[there]!);
  return {
    outward: grid.outward.map((shape, at) => (shape === 0 ? 0 : shape * between(at, at + 1))),
    upward: grid.upward.map((shape, at) => (shape === 0 ? 0 : shape * between(at, at + across))),
    endward: grid.endward.map((shape, at) => (shape === 0 ? 0 : shape * between(at, at + across * up))),
    side: grid.sideArea.map((area, at) => through(area, side.resistance, grid.halfAcross, k[at]!)),
    end: grid.endArea.map((area, at) => through(area, side.resistance, grid.toEnd, k[at]!)),
    top: grid.topArea.map((area, at) => through(area, top.resistance, grid.halfUp, k[at]!)),
    bottom: grid.bottomArea.map((area, at) => through(area, bottom.resistance, grid.halfUp, k[at]!)),
  };
}
