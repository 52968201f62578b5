/**
 * How a block heats and cools after the pour: saponification as an autocatalytic rate with Arrhenius dependence, heat
 * carried between cells by an implicit scheme that goes along one direction after the other (each solve conserves
 * energy and makes no new extremes). Craft: an estimate.
 */
import { noLossC } from './batter';
import { capacityAt, cellsOf, type Cells } from './cells';
import {
  ABSOLUTE_ZERO_C,
  ACTIVATION_K,
  CONVERTED_AT_TRACE,
  REFERENCE_C,
  START_SHARE,
  SUGAR_ACTIVATION_K,
  SUGAR_RATE_PER_HOUR,
  SUGAR_REFERENCE_C,
} from './figures';
import { conductancesOf, gridOf, type Conductances, type Grid } from './grid';
import { facesOf, rangeOf, type Faces } from './surroundings';
import type { Course, Cut, Fineness, GelState, Pour, Run, Unknowns } from './types';
import { firmOf, gelOf, watch, type Watch } from './watch';

export const USUAL: Unknowns = { rate: 1, wall: 1, heat: 1, conductivity: 1, gelK: 0 };
/** Fine enough that halving everything moves the middle's peak by less than half a kelvin. */
export const USUAL_FINENESS: Fineness = {
  across: 8,
  up: 10,
  along: 4,
  stepS: 180,
  stepConverted: 0.02,
};

const SECONDS_PER_HOUR = 3600;
const LEAST_STEP_S = 2;
/** Moments of the course are this far apart, hours. */
const EVERY_HOURS = 0.25;

/** Exponential of the Arrhenius law against a reference temperature. */
const arrhenius = (c: number, referenceC: number, activationK: number) =>
  Math.exp(activationK * (1 / (referenceC - ABSOLUTE_ZERO_C) - 1 / (c - ABSOLUTE_ZERO_C)));

/** Lets every cell react for a time without any exchange; its enthalpy stays, heat of reaction becomes warmth. Answers the joules made. */
function react(cells: Cells, seconds: number): number {
  const { t, converted, sugared, alkaliJ, rate } = cells;
  let madeJ = 0;
  for (let at = 0; at < t.length; at++) {
    const old = capacityAt(cells, at);
    // Autocatalytic with one order left: solved exactly for a temperature that stands.
    const speed = rate[at]! * arrhenius(t[at]!, REFERENCE_C, ACTIVATION_K);
    const share =
      ((START_SHARE + converted[at]!) / (1 - converted[at]!)) * Math.exp(speed * (1 + START_SHARE) * seconds);
    const next = share > 1e12 ? 1 - 1e-12 : Math.min(1 - 1e-12, (share - START_SHARE) / (1 + share));
    let joules = (next - converted[at]!) * alkaliJ[at]!;
    converted[at] = next;
    if (cells.sugarJ[at]! > 0) {
      const sugarSpeed =
        (SUGAR_RATE_PER_HOUR / SECONDS_PER_HOUR) * arrhenius(t[at]!, SUGAR_REFERENCE_C, SUGAR_ACTIVATION_K);
      const sugarNext = 1 - (1 - sugared[at]!) * Math.exp(-sugarSpeed * seconds);
      joules += (sugarNext - sugared[at]!) * cells.sugarJ[at]!;
      sugared[at] = sugarNext;
    }
    t[at] = REFERENCE_C + (old * (t[at]! - REFERENCE_C) + joules) / capacityAt(cells, at);
    madeJ += joules;
  }
  return madeJ;
}

/** Room for one line of cells. */
interface Line {
  upper: Float64Array;
  right: Float64Array;
}

/**
 * One implicit step along lines of cells `stride` apart: between them `link`, from each to what is around `loss` with
 * its temperature. Answers the joules lost.
 */
function along(
  cells: Cells,
  line: Line,
  seconds: number,
  lines: { first: (line: number) => number; count: number; length: number; stride: number },
  link: Float64Array,
  losses: readonly (readonly [Float64Array, number])[],
): number {
  const { t } = cells;
  const { upper, right } = line;
  let lostJ = 0;
  for (let which = 0; which < lines.count; which++) {
    const first = lines.first(which);
    let below = 0;
    for (let step = 0; step < lines.length; step++) {
      const at = first + step * lines.stride;
      const store = capacityAt(cells, at) / seconds;
      const next = step < lines.length - 1 ? link[at]! : 0;
      let diagonal = store + below + next;
      let wanted = store * t[at]!;
      for (const [loss, c] of losses) {
        diagonal += loss[at]!;
        wanted += loss[at]! * c;
      }
      const pivot = diagonal - (step > 0 ? below * upper[step - 1]! : 0);
      upper[step] = next / pivot;
      right[step] = (wanted + (step > 0 ? below * right[step - 1]! : 0)) / pivot;
      below = next;
    }
    for (let step = lines.length - 1; step >= 0; step--) {
      const at = first + step * lines.stride;
      const above = step < lines.length - 1 ? upper[step]! * t[at + lines.stride]! : 0;
      t[at] = right[step]! + above;
      for (const [loss, c] of losses) lostJ += loss[at]! * (t[at] - c) * seconds;
    }
  }
  return lostJ;
}

/** Heat carried for a time, out, up and to the ends in turn. Answers the joules lost. */
function carry(
  cells: Cells,
  grid: Grid,
  g: Conductances,
  faces: Faces,
  line: Line,
  seconds: number,
  isOutFirst: boolean,
): number {
  const { across, up, along: planes } = grid;
  const plane = across * up;
  const out = () =>
    along(
      cells,
      line,
      seconds,
      { first: (row) => row * across, count: up * planes, length: across, stride: 1 },
      g.outward,
      [[g.side, faces.side.c]],
    );
  const rise = () =>
    along(
      cells,
      line,
      seconds,
      {
        first: (col) => Math.floor(col / across) * plane + (col % across),
        count: across * planes,
        length: up,
        stride: across,
      },
      g.upward,
      [
        [g.top, faces.top.c],
        [g.bottom, faces.bottom.c],
      ],
    );
  const end = () =>
    along(
      cells,
      line,
      seconds,
      { first: (cell) => cell, count: plane, length: planes, stride: plane },
      g.endward,
      [[g.end, faces.side.c]],
    );
  return isOutFirst ? out() + rise() + end() : end() + rise() + out();
}

/** The next step: short while the reaction runs fast. */
function stepFor({ t, converted, rate }: Cells, { stepS, stepConverted }: Fineness): number {
  let fastest = 0;
  for (let at = 0; at < t.length; at++) {
    const x = converted[at]!;
    const speed = rate[at]! * arrhenius(t[at]!, REFERENCE_C, ACTIVATION_K) * (START_SHARE + x) * (1 - x);
    if (speed > fastest) fastest = speed;
  }
  return Math.max(LEAST_STEP_S, Math.min(stepS, stepConverted / fastest));
}

/** Enthalpy against the reference, J. */
function storedJ(cells: Cells): number {
  let sum = 0;
  for (let at = 0; at < cells.t.length; at++) sum += capacityAt(cells, at) * (cells.t[at]! - REFERENCE_C);
  return sum;
}

/** The cells that are looked at: in the middle, at the side half way up, and at the top in the middle. */
function placesOf({ across, up }: Grid) {
  const middle = Math.floor(up / 2) * across;
  return { middle, edge: middle + across - 1, top: (up - 1) * across, plane: across * up };
}

/** Keeps the course of a run, and the whole cut where it is wanted. */
function recorder(
  { t, converted }: Cells,
  { middle, edge, top, plane }: ReturnType<typeof placesOf>,
  withCut: boolean,
) {
  const course: Course = {
    hours: [],
    middleC: [],
    edgeC: [],
    topC: [],
    middleConverted: [],
    edgeConverted: [],
  };
  const frames: Float32Array[] = [];
  const note = (hour: number) => {
    course.hours.push(hour);
    course.middleC.push(t[middle]!);
    course.edgeC.push(t[edge]!);
    course.topC.push(t[top]!);
    course.middleConverted.push(converted[middle]!);
    course.edgeConverted.push(converted[edge]!);
    if (withCut) frames.push(Float32Array.from(t.subarray(0, plane)));
  };
  return { course, frames, note };
}

export interface RunOptions {
  hours?: number;
  unknowns?: Unknowns;
  fineness?: Fineness;
  /** Whether the cut through the block is kept at every moment. */
  withCut?: boolean;
}

/**
 * Runs one pour, whose shape is what the batter fills.
 *
 * @example
 * simulate({ batters, shape, around: { way: 'warm', roomC: 20 }, startC: 40 }).peakMiddleC; // 78.4
 */
export function simulate(pour: Pour, options: RunOptions = {}): Run {
  const { hours = 24, unknowns = USUAL, fineness = USUAL_FINENESS, withCut = false } = options;
  const grid = gridOf(pour.shape, fineness);
  const faces = facesOf(pour.shape, pour.around, unknowns.wall);
  const cells = cellsOf(pour, grid, unknowns);
  const g = conductancesOf(grid, cells.k, faces);
  const { across, up } = grid;
  const line: Line = {
    upper: new Float64Array(Math.max(across, up, grid.along)),
    right: new Float64Array(Math.max(across, up, grid.along)),
  };
  const places = placesOf(grid);
  const seen: Watch = {
    peakC: cells.t.slice(),
    peakHour: new Float64Array(cells.t.length),
    gelHours: new Float64Array(cells.t.length),
    firmHour: new Float64Array(cells.t.length).fill(NaN),
  };
  const { course, frames, note } = recorder(cells, places, withCut);
  const startJ = storedJ(cells);
  const { hottest } = rangeOf(faces);
  const endS = hours * SECONDS_PER_HOUR;
  let [now, madeJ, lostJ, isOutFirst] = [0, 0, 0, true];
  note(0);
  while (now < endS - 1e-6) {
    const nextNote = course.hours.length * EVERY_HOURS * SECONDS_PER_HOUR;
    const step = Math.min(stepFor(cells, fineness), nextNote - now, endS - now);
    madeJ += react(cells, step / 2);
    lostJ += carry(cells, grid, g, faces, line, step, isOutFirst);
    madeJ += react(cells, step / 2);
    isOutFirst = !isOutFirst;
    now += step;
    watch(cells, seen, now / SECONDS_PER_HOUR, step / SECONDS_PER_HOUR);
    if (now >= nextNote - 1e-6) note(now / SECONDS_PER_HOUR);
  }
  const gel = gelOf(cells, seen);
  const volume = grid.volume.reduce((sum, one) => sum + one, 0);
  const shareOf = (state: GelState) =>
    gel.reduce((sum, one, at) => sum + (one === state ? grid.volume[at]! : 0), 0) / volume;
  const cut: Cut | null = withCut ? { across, up, framesC: frames } : null;
  return {
    course,
    cut,
    peakC: seen.peakC,
    gel,
    gelC: cells.gelC,
    gelledShare: shareOf('gelled'),
    partShare: shareOf('part'),
    peakMiddleC: seen.peakC[places.middle]!,
    peakMiddleHour: seen.peakHour[places.middle]!,
    peakTopC: seen.peakC[places.top]!,
    firm: firmOf(pour.batters, cells, seen, grid),
    energy: { madeJ, lostJ, storedJ: storedJ(cells) - startJ },
    noLossC: Math.max(
      ...pour.batters.map((batter) =>
        noLossC(batter, Math.max(pour.startC, hottest), unknowns.heat, CONVERTED_AT_TRACE),
      ),
    ),
  };
}
