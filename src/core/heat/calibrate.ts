/**
 * What a maker's own thermometer and finger tell of her moulds and room: the unknowns that fit best what was found and what
 * the usual spread allows, with the spread that is left (Gauss around the best fit).
 */
import { cholesky, invert, type Matrix } from '../numerics/linear';
import { FITTED, unknownsOf, type Known } from './ensemble';
import { MODEL_K } from './figures';
import { simulate } from './simulate';
import type { Course, Fineness, Pour } from './types';

export interface Reading {
  /** Hours since the pour. */
  hour: number;
  where: 'middle' | 'edge';
  c: number;
}

/** What a finger on the block told: it dents, it holds, or it is hard. */
export interface Touched {
  /** Hours since the pour. */
  hour: number;
  isFirm: boolean;
}

/** A pour with what was measured of it. */
export interface Measured {
  pour: Pour;
  readings: readonly Reading[];
  touched?: readonly Touched[];
}

/** Whether anything was found out of a pour. */
export const isTold = ({ readings, touched = [] }: Measured): boolean =>
  readings.length > 0 || touched.length > 0;

export interface CalibrateOptions {
  /** Standard deviation of the thermometer and of where it was put, K. */
  noiseK?: number;
  fineness?: Fineness;
}

const COARSEST: Fineness = { across: 5, up: 6, along: 3, stepS: 300, stepConverted: 0.04 };
const THERMOMETER_K = 1;
/** The rate is looked for from so many beginnings, standard deviations: a later peak is not near an earlier one. */
const BEGINNINGS: readonly number[] = [0, -1.5, 1.5];
const DIFFERENCE = 0.05;
const MOST_ROUNDS = 12;
const ENOUGH = 1e-3;
const FIRST_DAMPING = 1e-2;
/** How rough a finger is, and how far a batter's own firmness may lie from the model's: logarithms of hours. */
const FINGER_SPREAD = 0.15;
const FIRMNESS_SPREAD = 0.3;
/** The steps in which the firmness that fits best is looked for, and how far. */
const FIRMNESS = { step: 0.01, most: 0.9 };
/** Hours within which a block is firm, or taken as firm at their end. */
const FIRM_HOURS = 48;

/** Standard deviations on either side that hold 90 of 100. */
const Z_90 = 1.645;

/** The temperature of a course at an hour. */
export function courseAt({ hours, middleC, edgeC }: Course, { hour, where }: Omit<Reading, 'c'>): number {
  const values = where === 'middle' ? middleC : edgeC;
  const after = hours.findIndex((one) => one >= hour);
  if (after === 0) return values[0]!;
  if (after === -1) return values.at(-1)!;
  const share = (hour - hours[after - 1]!) / (hours[after]! - hours[after - 1]!);
  return values[after - 1]! + share * (values[after]! - values[after - 1]!);
}

/** Differences of the model from what was measured, and of the unknowns from the usual, each over its spread. */
function residuals(
  z: readonly number[],
  measured: readonly Measured[],
  sigmaK: number,
  fineness: Fineness,
): number[] {
  const unknowns = unknownsOf(z);
  const off = measured.flatMap(({ pour, readings }) => {
    if (readings.length === 0) return [];
    const hours = Math.max(...readings.map(({ hour }) => hour), 1);
    const { course } = simulate(pour, { hours, unknowns, fineness });
    return readings.map((reading) => (reading.c - courseAt(course, reading)) / sigmaK);
  });
  return [...off, ...z];
}

const squares = (values: readonly number[]) => values.reduce((sum, one) => sum + one * one, 0);

/** The curvature and the slope of the sum of squares, from residuals and their derivatives. */
function normal(slopes: readonly (readonly number[])[], r: readonly number[]) {
  const matrix: Matrix = slopes.map((a) =>
    Float64Array.from(slopes, (b) => a.reduce((sum, one, at) => sum + one * b[at]!, 0)),
  );
  return { matrix, slope: slopes.map((a) => a.reduce((sum, one, at) => sum + one * r[at]!, 0)) };
}

/** The hour at which all of a block is firm by the model. */
function modelFirm(pour: Pour, z: readonly number[]): number {
  const { firm } = simulate(pour, { hours: FIRM_HOURS, unknowns: unknownsOf(z), fineness: COARSEST });
  return Math.max(...firm.map(({ allHour }) => allHour ?? FIRM_HOURS));
}

/**
 * The factor on the model's hours until a block is firm that fits best what fingers felt and what is usual: only what lies
 * on the wrong side of a touch counts. 1 where nobody touched.
 */
function firmness(z: readonly number[], measured: readonly Measured[]): number {
  const touches = measured.flatMap(({ pour, touched = [] }) => {
    const model = touched.length > 0 ? modelFirm(pour, z) : 0;
    return touched.map(({ hour, isFirm }) => ({ late: Math.log(model / hour), isFirm }));
  });
  const cost = (by: number) =>
    (by / FIRMNESS_SPREAD) ** 2 +
    squares(
      touches.map(({ late, isFirm }) =>
        isFirm ? Math.max(0, late + by) / FINGER_SPREAD : Math.min(0, late + by) / FINGER_SPREAD,
      ),
    );
  if (touches.length === 0) return 1;
  const steps = Math.round(FIRMNESS.most / FIRMNESS.step);
  const tried = Array.from({ length: 2 * steps + 1 }, (_, at) => (at - steps) * FIRMNESS.step);
  return Math.exp(tried.reduce((best, by) => (cost(by) < cost(best) ? by : best), 0));
}

/**
 * Fits the unknowns to what was measured of pours in the same mould and room. Without any reading it answers the usual
 * spread. Never throws.
 *
 * @example
 * const known = calibrate(poursInThisMould);
 * ensemble(pour, { known }); // a narrower band than without
 */
export function calibrate(measured: readonly Measured[], options: CalibrateOptions = {}): Known {
  const { noiseK = THERMOMETER_K, fineness = COARSEST } = options;
  const told = measured.filter(({ readings }) => readings.length > 0);
  const identity = FITTED.map((_, row) => FITTED.map((__, col) => (row === col ? 1 : 0)));
  if (told.length === 0) {
    const mean = FITTED.map(() => 0);
    return { mean, spread: identity, firm: firmness(mean, measured) };
  }
  const sigmaK = Math.hypot(noiseK, MODEL_K);
  const look = (z: readonly number[]) => residuals(z, told, sigmaK, fineness);
  let z: number[] = BEGINNINGS.map((rate) => FITTED.map((name) => (name === 'rate' ? rate : 0)))
    .map((from) => ({ from, cost: squares(look(from)) }))
    .reduce((best, one) => (one.cost < best.cost ? one : best)).from;
  let r = look(z);
  let damping = FIRST_DAMPING;
  let curvature: Matrix = identity.map((row) => Float64Array.from(row));
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const here = r;
    const slopes = FITTED.map((_, which) => {
      const moved = look(z.map((value, at) => (at === which ? value + DIFFERENCE : value)));
      return moved.map((value, at) => (value - here[at]!) / DIFFERENCE);
    });
    const { matrix, slope } = normal(slopes, r);
    curvature = matrix;
    const damped = matrix.map((row, at) =>
      row.map((value, col) => (col === at ? value * (1 + damping) : value)),
    );
    const { inverse } = invert(damped);
    const step = inverse.map((row) => -row.reduce((sum, value, col) => sum + value * slope[col]!, 0));
    const next = z.map((value, at) => value + step[at]!);
    const found = look(next);
    const gained = squares(r) - squares(found);
    if (gained > 0) {
      [z, r, damping] = [next, found, damping / 4];
      if (gained < ENOUGH) break;
    } else if (damping > 1e3) break;
    else damping *= 8;
  }
  const { inverse } = invert(curvature);
  const spread = cholesky(inverse).map((row) => Array.from(row));
  return { mean: z, spread, firm: firmness(z, measured) };
}

/** How a known factor of the usual figures lies: likely, and the range that holds it in 90 of 100 cases. */
export function knownFactor(
  { mean, spread }: Known,
  name: (typeof FITTED)[number],
): { low: number; likely: number; high: number } {
  const at = FITTED.indexOf(name);
  const sd = Math.sqrt(squares(spread[at]!));
  const factor = (z: number) => unknownsOf(FITTED.map((_, which) => (which === at ? z : 0)))[name];
  return {
    low: factor(mean[at]! - Z_90 * sd),
    likely: factor(mean[at]!),
    high: factor(mean[at]! + Z_90 * sd),
  };
}
