/** A bench scale's readings, what is known while it is followed, and the thresholds that several places share. */
import type { Sample } from './samples';

/** Why a scale shows nothing. */
export type ScaleState = 'ok' | 'asleep' | 'overloaded' | 'unplugged';

/** One reading; `g` is null while the display is blank. */
export interface Reading {
  atMs: number;
  g: number | null;
  state?: ScaleState;
  /** Whether the scale itself calls it stable; left out where it does not say. */
  isStable?: boolean;
}

/** The maker's answer to a question: what was held before counts on, or it does not. */
export interface Answer {
  carryOn: boolean;
}

/**
 * `zeroed`: zero was pressed with something held; it is carried. `slept`: after a blank
 * display or a silence it shows something else than before. `emptied`:
 * the pan shows zero after the vessel was lifted: it came back empty, or zero was pressed without it. The last two wait
 * for an answer, or for the vessel to come back with what it held.
 */
export interface Question {
  code: 'zeroed' | 'slept' | 'emptied';
  wasG: number;
}

export interface Following {
  /** Step of the display as it is seen, grams; what was said of it until its values speak against that. */
  readabilityG: number;
  saidG: number;
  /** Different values shown lately. */
  seen: readonly number[];
  /** What has gone into the vessel since the start, grams. */
  heldG: number;
  /** Whether the true mass lies within `heldG` ± `doubtG`. */
  settled: boolean;
  doubtG: number;
  question: Question | null;
  /** What the display shows is `offsetG` less than what is held. */
  offsetG: number;
  /** `off`: the vessel is lifted; `blank`: the display shows nothing. */
  place: 'on' | 'off' | 'blank';
  /** The last readings, oldest first. */
  recent: Sample[];
  /** Readings since a jump to zero that is not yet made out, and those before it. */
  jump: { before: Sample[]; after: Sample[]; isAnswered: boolean; isRest: boolean } | null;
  /** Where the hand last rested: from the first reading it was seen by, and since it was known. */
  rest: { g: number; fromMs: number; sinceMs: number; count: number } | null;
  /** What was held before the vessel was lifted or the display went blank. */
  beforeG: number;
  /** What was held when the vessel was lifted, until it rests again. */
  liftedG: number | null;
  /** Zero was pressed while the vessel was off: what the display showed before, grams, and how sure that is. */
  offZero: { levelG: number; doubtG: number; isSure: boolean } | null;
  /** When it last rested. */
  restedAtMs: number | null;
  /** Doubt that zero presses have left, in readabilities. */
  carriedDoubt: number;
}

/** In readabilities: below zero by more than this, the vessel is off. */
export const OFF = 4;
/** Near enough to zero for zero to have been pressed; from far enough away. */
export const NEAR_ZERO = 2.6;
export const JUMP = 3.7;
/** A step from one reading to the next that noise does not make. */
export const STEP = 3.4;
/** A longer silence than this between two readings says nothing of what happened in it, where they come quickly. */
const GAP_MS = 700;
const GAP_EVERY = 1.6;
/** Readings that come further apart are of a slow display or bridge. */
export const SLOW_MS = 350;

/** Milliseconds from one reading to the next, usually; 100 before it is known. */
export function everyMs({ recent }: Pick<Following, 'recent'>): number {
  const last = recent.slice(-5);
  if (last.length < 3) return last.length === 2 ? Math.min(SILENT_MS, last[1]!.atMs - last[0]!.atMs) : 100;
  const gaps = last.slice(1).map(({ atMs }, at) => atMs - last[at]!.atMs);
  return gaps.sort((a, b) => a - b)[gaps.length >> 1]!;
}

/** The longest silence after which what came before still says something. */
export function gapMs(state: Pick<Following, 'recent'>): number {
  // How fast they come is not known before there are two.
  if (state.recent.length < 2) return SILENT_MS;
  return Math.min(SILENT_MS, Math.max(GAP_MS, GAP_EVERY * everyMs(state)));
}
/** Nothing heard for longer than this is as if the display had slept: zero may have been pressed meanwhile. */
export const SILENT_MS = 1500;
