/**
 * By how much a display fell when zero was pressed while something may have been running in.
 *
 * What is in the vessel is taken as a straight line, a bend of unknown strength upon it (the stream swells and
 * thins: its rate is a random walk, so the mass is that walk summed up), one jump, and the scale's noise. The jump
 * and its doubt follow by generalised least squares for several strengths of bend, averaged by how well each explains
 * the readings (marginal likelihood); see any text on Gaussian-process regression.
 */
import { mean, type Sample } from './samples';

/** Noise of a good scale's readings about their mean, in readabilities: half of one, and rounding. */
const NOISE = 0.58;
/** Strengths of the bend tried: change of the stream over a second, in readabilities a second. */
const BENDS = [0, 0.3, 1, 3, 10, 30, 100, 300];
/** Readings taken on either side. */
const SPANS = [22, 12, 7];
/** Doubt is given as so many standard errors. */
const SIGMAS = 2;

/** Lower triangle L of a symmetric positive matrix, with L L' the matrix; changes what it is given. */
function cholesky(matrix: number[][]): number[][] {
  const size = matrix.length;
  for (let i = 0; i < size; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= matrix[i]![k]! * matrix[j]![k]!;
      matrix[i]![j] = i === j ? Math.sqrt(Math.max(sum, Number.EPSILON)) : sum / matrix[j]![j]!;
    }
  return matrix;
}

/** Solves L x = b. */
function forward(lower: number[][], b: readonly number[]): number[] {
  const x: number[] = [];
  lower.forEach((row, i) => {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= row[k]! * x[k]!;
    x.push(sum / row[i]!);
  });
  return x;
}

const dot = (a: readonly number[], b: readonly number[]) =>
  a.reduce((sum, value, i) => sum + value * b[i]!, 0);
const logDet = (lower: number[][]) => lower.reduce((sum, row, i) => sum + Math.log(row[i]!), 0);

interface Explained {
  size: number;
  variance: number;
  logLikelihood: number;
}

/** The jump for one strength of bend; all in readabilities and seconds. */
function explain(
  t: readonly number[],
  y: readonly number[],
  late: readonly number[],
  bend: number,
): Explained {
  const covariance = t.map((a, i) =>
    t.map((b, j) => {
      const [low, high] = [Math.min(a, b), Math.max(a, b)];
      return (bend * bend * low * low * (3 * high - low)) / 6 + (i === j ? NOISE * NOISE : 0);
    }),
  );
  const lower = cholesky(covariance);
  const columns = [t.map(() => 1), [...t], late.map((value) => -value)].map((column) =>
    forward(lower, column),
  );
  const whitened = forward(lower, y);
  const normal = columns.map((a) => columns.map((b) => dot(a, b)));
  const small = cholesky(normal.map((row) => [...row]));
  const right = forward(
    small,
    columns.map((column) => dot(column, whitened)),
  );
  // The last unknown comes first out of the upper triangle.
  const last = small[2]![2]!;
  return {
    size: right[2]! / last,
    variance: 1 / (last * last),
    logLikelihood: -(dot(whitened, whitened) - dot(right, right)) / 2 - logDet(lower) - logDet(small),
  };
}

interface Size {
  sizeG: number;
  doubtG: number;
}

function sizeOf(before: readonly Sample[], after: readonly Sample[], readabilityG: number): Size {
  const all = [...before, ...after];
  const startMs = all[0]!.atMs;
  const t = all.map(({ atMs }) => (atMs - startMs) / 1000);
  const y = all.map(({ g }) => g / readabilityG);
  const late = all.map((_, at) => Number(at >= before.length));
  const tried = BENDS.map((bend) => explain(t, y, late, bend));
  const most = Math.max(...tried.map(({ logLikelihood }) => logLikelihood));
  const weights = tried.map(({ logLikelihood }) => Math.exp(logLikelihood - most));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const size = tried.reduce((sum, one, i) => sum + (weights[i]! * one.size) / whole, 0);
  const variance = tried.reduce(
    (sum, one, i) => sum + (weights[i]! * (one.variance + (one.size - size) ** 2)) / whole,
    0,
  );
  return { sizeG: size * readabilityG, doubtG: SIGMAS * Math.sqrt(variance) * readabilityG };
}

/**
 * The size of a jump to zero from the readings before and after it, grams, with its doubt at two standard errors.
 * Where the stream began or ended near the jump, fewer readings tell more: the span that leaves least doubt is taken.
 *
 * @example
 * jumpBetween([{ atMs: 0, g: 200 }, …], [{ atMs: 100, g: 0 }, …], 1); // { sizeG: 200.1, doubtG: 0.5 }
 */
export function jumpBetween(before: readonly Sample[], after: readonly Sample[], readabilityG: number): Size {
  let best: Size = { sizeG: before.at(-1)!.g - after[0]!.g, doubtG: Infinity };
  for (const early of SPANS)
    for (const late of SPANS) {
      const [some, others] = [before.slice(-early), after.slice(0, late)];
      if (some.length < 2 || others.length < 2) continue;
      const size = sizeOf(some, others, readabilityG);
      if (size.doubtG < best.doubtG) best = size;
    }
  return best;
}

/** The same where the hand rested before and after: the difference of what was shown. */
export function jumpAtRest(before: readonly Sample[], after: readonly Sample[], readabilityG: number): Size {
  const doubt = SIGMAS * NOISE * Math.sqrt(1 / before.length + 1 / after.length);
  return { sizeG: mean(before) - mean(after), doubtG: doubt * readabilityG };
}
