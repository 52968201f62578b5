/** A block cut into cells: from its middle plane (or a column's axis) out to the side, and from bottom to top. */
import type { Faces } from './surroundings';
import type { Fineness, MouldShape } from './types';

export interface Grid {
  across: number;
  up: number;
  /** Of each cell, m3; the whole block's volume is their sum (both halves together). */
  volume: Float64Array;
  /** Area over distance between a cell and the next further out, and the next above, m; to be multiplied with a conductivity. */
  outward: Float64Array;
  upward: Float64Array;
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
/** Heat that leaves by an end comes on average from this share of the length (both ends draw). */
const END_WAY = 1 / 6;

/** Cuts a mould filled to a height into cells. */
export function gridOf(shape: MouldShape, { across, up }: Pick<Fineness, 'across' | 'up'>): Grid {
  const isColumn = shape.form === 'column';
  const [halfWidth, height, length] = [shape.widthMm / 2, shape.heightMm, shape.lengthMm].map(
    (mm) => mm * MM,
  );
  const dx = halfWidth! / across;
  const dz = height! / up;
  const count = across * up;
  const make = () => new Float64Array(count);
  const grid: Grid = {
    across,
    up,
    volume: make(),
    outward: make(),
    upward: make(),
    sideArea: make(),
    topArea: make(),
    bottomArea: make(),
    endArea: make(),
    halfAcross: dx / 2,
    halfUp: dz / 2,
    toEnd: length! * END_WAY,
  };
  for (let row = 0; row < up; row++)
    for (let col = 0; col < across; col++) {
      const at = row * across + col;
      // A block is two mirrored halves; a column's cells are rings.
      const outerArea = isColumn ? 2 * Math.PI * (col + 1) * dx * dz : 2 * length! * dz;
      const floorArea = isColumn ? Math.PI * (2 * col + 1) * dx * dx : 2 * length! * dx;
      grid.volume[at] = floorArea * dz;
      if (col < across - 1) grid.outward[at] = outerArea / dx;
      else grid.sideArea[at] = outerArea;
      if (row < up - 1) grid.upward[at] = floorArea / dz;
      else grid.topArea[at] = floorArea;
      if (row === 0) grid.bottomArea[at] = floorArea;
      if (!isColumn) grid.endArea[at] = 4 * dx * dz;
    }
  return grid;
}

/** Conductance of a face from a cell's middle to the air, W/K. */
const through = (area: number, resistance: number, way: number, k: number) =>
  area === 0 ? 0 : area / (resistance + way / k);

export interface Conductances {
  outward: Float64Array;
  upward: Float64Array;
  /** To what is around, at the side and the ends together, and at top and bottom. */
  side: Float64Array;
  top: Float64Array;
  bottom: Float64Array;
}

/** Conductances of a grid whose cells conduct as `k` says, W/(m K), within its faces; W/K. */
export function conductancesOf(grid: Grid, k: Float64Array, { side, top, bottom }: Faces): Conductances {
  const { across } = grid;
  const between = (here: number, there: number) => (2 * k[here]! * k[there]!) / (k[here]! + k[there]!);
  return {
    outward: grid.outward.map((shape, at) => (shape === 0 ? 0 : shape * between(at, at + 1))),
    upward: grid.upward.map((shape, at) => (shape === 0 ? 0 : shape * between(at, at + across))),
    side: grid.sideArea.map(
      (area, at) =>
        through(area, side.resistance, grid.halfAcross, k[at]!) +
        through(grid.endArea[at]!, side.resistance, grid.toEnd, k[at]!),
    ),
    top: grid.topArea.map((area, at) => through(area, top.resistance, grid.halfUp, k[at]!)),
    bottom: grid.bottomArea.map((area, at) => through(area, bottom.resistance, grid.halfUp, k[at]!)),
  };
}
