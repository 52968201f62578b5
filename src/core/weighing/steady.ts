/** Whether a bar on the pan has come to rest: for weighing one thing after the other, without a vessel. */
import type { Reading } from './follow';

/** A reading rests when the last ones stay this close together, in steps of the display. */
const WITHIN_STEPS = 2;
const REST_MS = 900;
/** Under so many steps the pan is empty. */
const EMPTY_STEPS = 5;

/** Readings of a slow display that have to lie together. */
const SLOW_READINGS = 2;

/** Milliseconds between readings that are not the same one told again. */
function everyMs(readings: readonly Reading[]): number {
  const moments = [...new Set(readings.map(({ atMs }) => atMs))];
  if (moments.length < 2) return 0;
  return (moments.at(-1)! - moments[0]!) / (moments.length - 1);
}

/** What the pan holds at rest, grams; 0 where it is empty, null while it moves or says nothing. */
export function steadyG(readings: readonly Reading[], readabilityG: number): number | null {
  const last = readings.at(-1);
  if (!last || last.g === null) return null;
  const restMs = Math.max(REST_MS, SLOW_READINGS * everyMs(readings));
  const recent = readings.filter(({ atMs }) => last.atMs - atMs <= restMs);
  if (last.atMs - recent[0]!.atMs < restMs * 0.8) return null;
  const grams = recent.map(({ g }) => g);
  if (grams.some((g) => g === null)) return null;
  const values = grams as number[];
  if (Math.max(...values) - Math.min(...values) > WITHIN_STEPS * readabilityG) return null;
  const held = [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
  return Math.abs(held) < EMPTY_STEPS * readabilityG ? 0 : held;
}
