/** What is not known of a pour, drawn many times: the answer is a band, and how often what may go wrong went wrong. */
import { quantile, seededRandom, type Random } from '../numerics/random';
import { chancesOf, type Chances } from './judge';
import { SPREAD } from './figures';
import { simulate } from './simulate';
import type { Fineness, Pour, Run, Unknowns } from './types';

/** Mean and lower triangle of the spread of the unknowns' logarithms, in standard deviations of the usual spread. */
export interface Known {
  mean: number[];
  spread: number[][];
  /** What fingers made of the model's hours until a block is firm, a factor on them. */
  firm: number;
}

/** The order of a calibration's numbers. */
export const FITTED = ['rate', 'wall', 'heat', 'conductivity'] as const;

export interface Range {
  low: number;
  likely: number;
  high: number;
}

/** Hours; `high` is null where it lies beyond the hours that were reckoned. */
export interface HourRange extends Omit<Range, 'high'> {
  high: number | null;
}

export interface Band {
  hours: number[];
  middle: Range[];
  edge: Range[];
  peakMiddleC: Range;
  peakMiddleHour: Range;
  gelledShare: Range;
  /** By part of the batter; null where it is not firm within the hours in the middle of all runs. */
  firm: {
    portion: string | null;
    edgeHour: HourRange | null;
    middleHour: HourRange | null;
    allHour: HourRange | null;
  }[];
  chances: Chances;
  runs: number;
}

export interface BandOptions {
  runs?: number;
  seed?: number;
  hours?: number;
  known?: Known | null;
}

/** 80 % lie within. */
const [LOW, HIGH] = [0.1, 0.9];
const USUAL_RUNS = 100;
/** Coarser than one run that is looked at; within a kelvin of it. */
export const COARSE: Fineness = { across: 6, up: 8, along: 3, stepS: 300, stepConverted: 0.04 };

/** Factors from standard normal numbers, in the order of FITTED. */
export function unknownsOf(z: readonly number[], gelK = 0): Unknowns {
  const [rate, wall, heat, conductivity] = FITTED.map((name, at) => Math.exp(SPREAD[name] * z[at]!));
  return { rate: rate!, wall: wall!, heat: heat!, conductivity: conductivity!, gelK };
}

function drawn(random: Random, known: Known | null): Unknowns {
  const e = FITTED.map(() => random.normal());
  const z = known
    ? known.mean.map(
        (mean, row) => mean + known.spread[row]!.reduce((sum, one, col) => sum + one * e[col]!, 0),
      )
    : e;
  return unknownsOf(z, SPREAD.gelK * random.normal());
}

function rangeOf(values: readonly number[]): Range {
  const sorted = [...values].sort((a, b) => a - b);
  return { low: quantile(sorted, LOW), likely: quantile(sorted, 0.5), high: quantile(sorted, HIGH) };
}

/** A range of hours of which some are never; null where most are. */
function rangeWithin(values: readonly (number | null)[]): HourRange | null {
  const { low, likely, high } = rangeOf(values.map((value) => value ?? Infinity));
  return Number.isFinite(likely) ? { low, likely, high: Number.isFinite(high) ? high : null } : null;
}

function bandOf(pour: Pour, runs: readonly Run[], firmness: number): Band {
  const { hours } = runs[0]!.course;
  const across = (of: (run: Run) => readonly number[]) =>
    hours.map((_, at) => rangeOf(runs.map((run) => of(run)[at]!)));
  const firmWithin = (of: (run: Run) => number | null) =>
    rangeWithin(runs.map((run) => (of(run) === null ? null : firmness * of(run)!)));
  return {
    hours,
    middle: across(({ course }) => course.middleC),
    edge: across(({ course }) => course.edgeC),
    peakMiddleC: rangeOf(runs.map(({ peakMiddleC }) => peakMiddleC)),
    peakMiddleHour: rangeOf(runs.map(({ peakMiddleHour }) => peakMiddleHour)),
    gelledShare: rangeOf(runs.map(({ gelledShare }) => gelledShare)),
    firm: pour.batters.map(({ portion }, at) => ({
      portion,
      edgeHour: firmWithin(({ firm }) => firm[at]!.edgeHour),
      middleHour: firmWithin(({ firm }) => firm[at]!.middleHour),
      allHour: firmWithin(({ firm }) => firm[at]!.allHour),
    })),
    chances: chancesOf(pour, runs),
    runs: runs.length,
  };
}

/**
 * The band of a pour, run by run: yields how many are done and returns the band, so that whoever asks can tell how far
 * it is and give it up. The same seed gives the same band.
 *
 * @example
 * const run = ensemble(pour, { runs: 100, seed: 1 });
 * let step = run.next();
 * while (!step.done) step = run.next(); // step.value says how many runs are done
 * step.value; // the band
 */
export function* ensemble(pour: Pour, options: BandOptions = {}): Generator<number, Band> {
  const { runs = USUAL_RUNS, seed = 1, hours, known = null } = options;
  const random = seededRandom(seed);
  const done: Run[] = [];
  while (done.length < runs) {
    done.push(
      simulate(pour, { unknowns: drawn(random, known), fineness: COARSE, ...(hours ? { hours } : {}) }),
    );
    yield done.length;
  }
  return bandOf(pour, done, known?.firm ?? 1);
}

/** The whole band at once. */
export function bandAtOnce(pour: Pour, options: BandOptions = {}): Band {
  const work = ensemble(pour, options);
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
  }
}
