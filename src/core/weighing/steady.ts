/** Whether a bar on the pan has come to rest: for weighing one thing after the other, without a vessel. */
import type { Reading } from './follow';

/** A reading rests when the last ones stay this close together, in steps of the display. */
const WITHIN_STEPS = 2;
const REST_MS = 900;
/** Under so many steps the pan is empty. */
const EMPTY_STEPS = 5;

/** What the pan holds at rest, grams; 0 where it is empty, null while it moves or says nothing. */
export function steadyG(readings: readonly Reading[], readabilityG: number): number | null {
  const last = readings.at(-1);
  if (!last || last.g === null) return null;
  const recent = readings.filter(({ atMs }) => last.atMs - atMs <= REST_MS);
  if (last.atMs - recent[0]!.atMs < REST_MS * 0.8) return null;
  const grams = recent.map(({ g }) => g);
  if (grams.some((g) => g === null)) return null;
  const values = grams as number[];
  if (Math.max(...values) - Math.min(...values) > WITHIN_STEPS * readabilityG) return null;
  const held = [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
  return Math.abs(held) < EMPTY_STEPS * readabilityG ? 0 : held;
}
