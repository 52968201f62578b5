/**
 * How well a course of loss fits the weighings of a batch. A weighing's logarithm is its bar's mass at the pour, plus
 * the common course, plus the weather (a random walk that all bars of a day share), plus what the scale adds. Bars'
 * masses and weather are integrated out, so that a course is judged by a small quadratic form over the days.
 */
import { invert, zeros, type Matrix } from '../numerics/linear';
import type { CureWeighing } from './cure-types';

/** What is known of the mean bar at the pour: its logarithm, and how unsure that is. */
export interface PouredBar {
  logG: number;
  doubt: number;
}

/** One assumption about noise and weather, with the weighings made ready for it. */
export interface Evidence {
  /** Logarithm of how likely the assumption is by itself, with everything that does not hang on the course. */
  constant: number;
  linear: Float64Array;
  quadratic: Matrix;
  /** Bars' masses at the pour, as logarithms: `barMean - barByCourse · course`, with their covariance. */
  barMean: Float64Array;
  barByCourse: Matrix;
  barCovariance: Matrix;
}

export interface Sightings {
  days: number[];
  bars: string[];
  rows: { bar: number; day: number; log: number; massG: number }[];
  poured: PouredBar | null;
}

const NEARLY_AT_ONCE_DAYS = 1e-6;

/** Weighings so close together share their weather and count as of one day, days. */
const ONE_ROUND_DAYS = 0.1;

/** Rounds of weighing: the day of the first of each. */
function roundsOf(weighings: readonly CureWeighing[]): (day: number) => number {
  const rounds: number[] = [];
  for (const day of weighings.map((one) => one.day).sort((a, b) => a - b))
    if (rounds.length === 0 || day - rounds.at(-1)! > ONE_ROUND_DAYS) rounds.push(day);
  return (day) => rounds.findLast((round) => round <= day)!;
}

/** Weighings by their places among the days and bars. */
export function sight(given: readonly CureWeighing[], poured: PouredBar | null): Sightings {
  const roundOf = roundsOf(given);
  const weighings = given.map((one) => ({ ...one, day: roundOf(one.day) }));
  const days = [...new Set([...(poured ? [0] : []), ...weighings.map(({ day }) => day)])].sort(
    (a, b) => a - b,
  );
  const bars = [...new Set(weighings.map(({ bar }) => bar))];
  const rows = weighings.map(({ bar, day, massG }) => ({
    bar: bars.indexOf(bar),
    day: days.indexOf(day),
    log: Math.log(massG),
    massG,
  }));
  return { days, bars, rows, poured };
}

interface Row {
  bar: number;
  day: number;
  log: number;
  precision: number;
}

/** Weighings as rows, and what is known of the pour as one row a bar, which together weigh as much as it is worth. */
function rowsOf({ rows, bars, poured }: Sightings, noiseG: number): Row[] {
  const weighed = rows.map(({ bar, day, log, massG }) => ({
    bar,
    day,
    log,
    precision: (massG / noiseG) ** 2,
  }));
  if (!poured) return weighed;
  const firsts = bars.map((_, bar) => rows.find((row) => row.bar === bar)!.log);
  const mean = firsts.reduce((sum, log) => sum + log, 0) / firsts.length;
  const precision = 1 / (poured.doubt ** 2 * bars.length);
  return [
    ...weighed,
    ...firsts.map((log, bar) => ({ bar, day: 0, log: poured.logG + log - mean, precision })),
  ];
}

/** Precision of a random walk from the pour on, at the days. */
function walkPrecision(days: readonly number[], perDay: number): { matrix: Matrix; logDet: number } {
  const matrix = zeros(days.length, days.length);
  let logDet = 0;
  days.forEach((day, at) => {
    const step = Math.max(day - (days[at - 1] ?? 0), NEARLY_AT_ONCE_DAYS);
    const precision = 1 / (perDay ** 2 * step);
    logDet += Math.log(precision);
    matrix[at]![at]! += precision;
    if (at === 0) return;
    matrix[at - 1]![at - 1]! += precision;
    matrix[at - 1]![at]! -= precision;
    matrix[at]![at - 1]! -= precision;
  });
  return { matrix, logDet };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}

/** Sums over the rows: the joint precision of bars and days, and what course and data add to it. */
interface Sums {
  joint: Matrix;
  byCourse: Matrix;
  byData: Float64Array;
  dayPrecision: Float64Array;
  dayData: Float64Array;
  constant: number;
}

function sumsOf({ days, bars }: Sightings, rows: readonly Row[], walk: Matrix): Sums {
  const size = bars.length + days.length;
  const sums: Sums = {
    joint: zeros(size, size),
    byCourse: zeros(size, days.length),
    byData: new Float64Array(size),
    dayPrecision: new Float64Array(days.length),
    dayData: new Float64Array(days.length),
    constant: 0,
  };
  const { joint, byCourse, byData, dayPrecision, dayData } = sums;
  walk.forEach((line, i) => joint[bars.length + i]!.set(line, bars.length));
  for (const { bar, day, log, precision } of rows) {
    const late = bars.length + day;
    for (const [a, b] of [
      [bar, bar],
      [late, late],
      [bar, late],
      [late, bar],
    ] as const)
      joint[a]![b]! += precision;
    for (const place of [bar, late]) {
      byCourse[place]![day]! += precision;
      byData[place]! += precision * log;
    }
    dayPrecision[day]! += precision;
    dayData[day]! += precision * log;
    sums.constant += 0.5 * Math.log(precision) - 0.5 * precision * log * log;
  }
  return sums;
}

/** A matrix's transpose times another. */
function transposedTimes(a: Matrix, b: Matrix): Matrix {
  const product = zeros(a[0]!.length, b[0]!.length);
  for (let k = 0; k < a.length; k++)
    for (let i = 0; i < product.length; i++)
      for (let j = 0; j < product[i]!.length; j++) product[i]![j]! += a[k]![i]! * b[k]![j]!;
  return product;
}

/** Makes the weighings ready for noise of the scale (grams) and weather (share of the mass a day). */
export function evidence(
  sightings: Sightings,
  assumption: { noiseG: number; weatherPerDay: number; logPrior: number },
): Evidence {
  const { days, bars } = sightings;
  const walk = walkPrecision(days, assumption.weatherPerDay);
  const sums = sumsOf(sightings, rowsOf(sightings, assumption.noiseG), walk.matrix);
  const { inverse, logDet } = invert(sums.joint);
  const solved = Float64Array.from(inverse, (line) => dot(line, sums.byData));
  // The inverse is symmetric, so that it is its own transpose.
  const solvedCourse = transposedTimes(inverse, sums.byCourse);
  const lessened = transposedTimes(sums.byCourse, solvedCourse);
  const quadratic = lessened.map((line, i) =>
    line.map((value, j) => (i === j ? sums.dayPrecision[i]! : 0) - value),
  );
  const linear = sums.dayData.map(
    (value, day) => value - sums.byCourse.reduce((sum, row, k) => sum + row[day]! * solved[k]!, 0),
  );
  return {
    constant:
      assumption.logPrior + 0.5 * walk.logDet + sums.constant - 0.5 * logDet + 0.5 * dot(sums.byData, solved),
    linear,
    quadratic,
    barMean: solved.slice(0, bars.length),
    barByCourse: solvedCourse.slice(0, bars.length),
    barCovariance: inverse.slice(0, bars.length).map((line) => line.slice(0, bars.length)),
  };
}

/** Logarithm of how likely the weighings are for a course (logarithms of the share left, by day). */
export function logLikely({ constant, linear, quadratic }: Evidence, course: Float64Array): number {
  let value = constant;
  for (let i = 0; i < course.length; i++) {
    let row = 0;
    for (let j = 0; j < course.length; j++) row += quadratic[i]![j]! * course[j]!;
    value += course[i]! * (linear[i]! - 0.5 * row);
  }
  return value;
}

/** The means of the bars' logarithms at the pour, for a course. */
export function barLogs({ barMean, barByCourse }: Evidence, course: Float64Array): Float64Array {
  return barMean.map((mean, bar) => mean - dot(barByCourse[bar]!, course));
}
