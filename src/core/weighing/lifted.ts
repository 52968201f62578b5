/** A vessel that was lifted off the pan: zero pressed meanwhile, and the vessel back with what it held. */
import { lineThrough, mean, type Sample } from './samples';
import { gapMs, JUMP, NEAR_ZERO, OFF, STEP, type Following } from './scale';

/** Noise of a reading, and how many of its errors a doubt spans, in readabilities. */
const NOISE = 0.58;
const SIGMAS = 2;
/** Readings that the level of the bare pan is taken from: where it stands, and where it still creeps. */
const STANDING = 20;
const CREEPING = 8;
/** Slope of the end of a fall, readabilities a second. */
const CREEPS = 4;
/** Slope of what stands, readabilities a second; spread about a line that is one. */
const STANDS = 0.45;
const STRAIGHT = 1.05;
/** Doubt where the display still fell: too much for the mass ever to settle. */
const FALLS = 3;
/** A vessel that comes back as it was needs a shorter look. */
const BACK_MS = 780;
const AS_BEFORE = 0.8;
const BACK_SLOPE = 1.5;

/**
 * Whether zero is pressed while the vessel is off: the display steps to zero from where it stood. Where it was on its
 * way up, an empty vessel was put back.
 *
 * @example
 * zeroPressedOff(state, { atMs: 9000, g: 0 }); // { levelG: -180, doubtG: 0.3 }: it had stood at -180 g
 */
export function zeroPressedOff(state: Following, shown: Sample): Following['offZero'] {
  const { recent, offsetG, readabilityG, place } = state;
  const levels = recent.map(({ atMs, g }) => ({ atMs, g: g - offsetG }));
  const last = levels.at(-1);
  if (place !== 'off' || !last || shown.atMs - last.atMs > gapMs(state)) return null;
  const rise = last.g - (levels.at(-2) ?? last).g;
  // What still fell falls on below zero.
  const low = -NEAR_ZERO * readabilityG + Math.min(0, rise);
  const isAtZero = shown.g >= low && shown.g <= NEAR_ZERO * readabilityG;
  const wasOff = last.g < -OFF * readabilityG && last.g < shown.g - JUMP * readabilityG;
  if (!isAtZero || !wasOff || rise > STEP * readabilityG) return null;
  const near = levels.slice(-STANDING).filter(({ g }) => Math.abs(g - last.g) <= STEP * readabilityG);
  if (near.length >= 3 && Math.abs(lineThrough(near).slopePerS) < STANDS * readabilityG) {
    return {
      levelG: mean(near),
      doubtG: (SIGMAS * NOISE * readabilityG) / Math.sqrt(near.length),
      isSure: false,
    };
  }
  const lately = levels.slice(-CREEPING);
  const { slopePerS } = lineThrough(lately);
  if (lately.length < CREEPING || Math.abs(slopePerS) > CREEPS * readabilityG)
    return { levelG: last.g, doubtG: FALLS * readabilityG, isSure: false };
  const sinceS = (last.atMs - lately.reduce((sum, { atMs }) => sum + atMs, 0) / CREEPING) / 1000;
  return { levelG: mean(lately) + slopePerS * sinceS, doubtG: readabilityG, isSure: false };
}

/** Once more at zero, or falling on, it is sure; a vessel put back may pass zero by chance in one reading. */
export function stillAtZero({ offZero, readabilityG }: Following, shown: Sample): Following['offZero'] {
  if (!offZero || offZero.isSure) return offZero;
  return shown.g <= NEAR_ZERO * readabilityG ? { ...offZero, isSure: true } : null;
}

/**
 * The mass where a zero pressed with the vessel off is carried over, once the vessel is back and rests; null where it
 * cannot have been so. What was asked meanwhile is answered only by a vessel that holds what it held.
 */
export function carriedOver(state: Following, restG: number): Following | null {
  const { offZero, readabilityG, liftedG, question } = state;
  if (!offZero) return null;
  const heldG = restG + offZero.levelG;
  const near = JUMP * readabilityG + offZero.doubtG;
  const isPlausible = question ? Math.abs(heldG - question.wasG) <= near : heldG > -near;
  if (!isPlausible || restG <= NEAR_ZERO * readabilityG) return null;
  return {
    ...state,
    heldG,
    settled: false,
    rest: null,
    offZero: null,
    liftedG: null,
    offsetG: state.offsetG + offZero.levelG,
    recent: state.recent.map(({ atMs, g }) => ({ atMs, g: g + offZero.levelG })),
    carriedDoubt: Math.hypot(state.carriedDoubt, offZero.doubtG / readabilityG),
    question: { code: 'zeroed', wasG: question?.wasG ?? liftedG ?? heldG },
  };
}

/** Where a vessel rests that was lifted and holds what it held; null where it is not known to. */
export function backAsBefore(state: Following): { g: number; fromMs: number; count: number } | null {
  const { liftedG, offZero, recent, readabilityG } = state;
  const fromMs = recent.at(-1)!.atMs - BACK_MS;
  if (liftedG === null || offZero || recent[0]!.atMs > fromMs) return null;
  const seen = recent.filter(({ atMs }) => atMs >= fromMs);
  const { slopePerS, spreadG } = lineThrough(seen);
  const g = mean(seen);
  const isAsBefore = Math.abs(g - liftedG) <= AS_BEFORE * readabilityG && spreadG <= STRAIGHT * readabilityG;
  if (!isAsBefore || Math.abs(slopePerS) > BACK_SLOPE * readabilityG || seen.length < 5) return null;
  return { g, fromMs: seen[0]!.atMs, count: seen.length };
}
