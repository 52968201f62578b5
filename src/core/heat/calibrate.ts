/**
 * What a maker's own thermometer tells of her moulds and room: the unknowns that fit best what was measured and what
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

/** A pour with what was measured of it. */
export interface Measured {
  pour: Pour;
  readings: readonly Reading[];
}

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
  if (told.length === 0) return { mean: FITTED.map(() => 0), spread: identity };
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
  return { mean: z, spread: cholesky(inverse).map((row) => Array.from(row)) };
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
