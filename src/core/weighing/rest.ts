/** Where the hand rests at a scale: readings that lie together long enough, apart from noise, tremble and outliers. */
import { half, lineThrough, mean, median, type Sample } from './samples';
import { everyMs, SLOW_MS, STEP, type Following } from './scale';

/** All of these are in readabilities unless they say otherwise. */
/** Spread of readings at rest; a bottle leant on the pan trembles more. */
const STILL = 1.05;
const OUTLIER = 2.2;
/** Steps beyond noise that turn about so often are a tremble. */
const TREMBLES = 2;
const MOST_OUTLIERS = 2;
/** Slopes that noise alone may show, readabilities a second, over a short and a long look. */
const SHORT_SLOPE = 0.85;
export const STEADY_SLOPE = 0.45;
/** A long look is taken where nothing moved by more than this. */
const SLOW_RANGE = 12;
const HALVES_APART = 0.8;
const SHORT_MS = 1150;
const LONG_MS = 1950;
const REGIME_MS = 2600;

/** Whether something leans on the pan or shakes it: readings that go up and down by more than noise does. */
export function trembles(samples: readonly Sample[], readabilityG: number): boolean {
  const steps = samples
    .slice(1)
    .map(
      ({ g }, at) =>
        Math.sign(g - samples[at]!.g) * Number(Math.abs(g - samples[at]!.g) > STEP * readabilityG),
    );
  const turns = steps.filter(
    (step, at) => step !== 0 && steps.slice(0, at).findLast((one) => one !== 0) === -step,
  );
  return turns.length >= TREMBLES;
}

/** The readings of the last so many milliseconds, single outliers left out. */
function look({ recent, readabilityG }: Following, lengthMs: number): Sample[] | null {
  const from = recent.at(-1)!.atMs - lengthMs;
  if (recent[0]!.atMs > from) return null;
  const seen = recent.filter(({ atMs }) => atMs >= from);
  const middle = median(seen);
  const kept = seen.filter(({ g }) => Math.abs(g - middle) <= OUTLIER * readabilityG);
  return seen.length - kept.length <= MOST_OUTLIERS ? kept : seen;
}

/** Readings of a slow display that have to lie together. */
export const SLOW_READINGS = 5;
/** And how closely, in steps. */
const SLOW_WITHIN = 2.2;

/** The same where readings come slowly: too few for statistics, so that several in a row have to be alike. */
function restingSlowly({ recent, readabilityG }: Following) {
  const seen = recent.slice(-SLOW_READINGS);
  const values = seen.map(({ g }) => g);
  if (seen.length < SLOW_READINGS) return null;
  if (Math.max(...values) - Math.min(...values) > SLOW_WITHIN * readabilityG) return null;
  return { g: mean(seen), fromMs: seen[0]!.atMs, count: seen.length };
}

/** The mass on the pan where the hand rests; null while something moves. */
export function restingAt(state: Following): { g: number; fromMs: number; count: number } | null {
  const { readabilityG, recent } = state;
  if (everyMs(state) > SLOW_MS) return restingSlowly(state);
  const from = recent.at(-1)!.atMs - REGIME_MS;
  // What moves slowly, or not at all, needs a longer look than what was poured and has come to rest.
  const lately = recent.filter(({ atMs }) => atMs >= from);
  const values = lately.map(({ g }) => g);
  const isSlow =
    Math.max(...values) - Math.min(...values) <= SLOW_RANGE * readabilityG || trembles(lately, readabilityG);
  const seen = look(state, isSlow ? LONG_MS : SHORT_MS);
  if (!seen || seen.length < 5) return null;
  const { slopePerS, spreadG } = lineThrough(seen);
  const most = isSlow ? STEADY_SLOPE : SHORT_SLOPE;
  if (spreadG > STILL * readabilityG || Math.abs(slopePerS) > most * readabilityG) return null;
  const [first, second] = half(seen);
  if (Math.abs(mean(first) - mean(second)) > HALVES_APART * readabilityG) return null;
  return { g: mean(seen), fromMs: seen[0]!.atMs, count: seen.length };
}
