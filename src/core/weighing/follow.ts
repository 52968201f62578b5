/**
 * Following a bench scale: what has really gone into the vessel, from readings that wander, sleep and jump (batch
 * page). Pure: times come with the readings, a state goes in and another comes out. States are plain values that
 * may be kept and taken up again.
 */
import { seenWith, stepSeen } from './display';
import { jumpAtRest, jumpBetween } from './jump';
import { backAsBefore, carriedOver, stillAtZero, zeroPressedOff } from './lifted';
import { restingAt, SLOW_READINGS, STEADY_SLOPE, trembles } from './rest';
import { lineThrough, mean, median, type Sample } from './samples';
import {
  everyMs,
  gapMs,
  JUMP,
  NEAR_ZERO,
  OFF,
  SILENT_MS,
  type Answer,
  type Following,
  type Question,
  type Reading,
} from './scale';

export type { Answer, Following, Reading, ScaleState } from './scale';

/** All of these are in readabilities unless they say otherwise. */
const MOST_DOUBT = 1.5;
/** A scale's zero drifts by a hundredth a second; more than this is movement. */
const CREEP_PER_S = 0.02;
/** Away from where it rested by more than this, it moves: one reading, the middle of three, the means of five and eight. */
const FAR_OFF = 2.3;
const MOVED_3 = 1.4;
const MOVED_5 = 0.85;
const MOVED_8 = 0.65;
/** A mid-pour press leaves less than this share of what was shown. */
const JUMP_SHARE = 0.25;
/** Doubt in the size of a jump that still lets the mass settle. */
export const MOST_CARRIED = 1.3;

const KEPT_MS = 4000;
const KNOCK_MS = 900;
/** Readings after a jump before it is made out, and used for it. */
const JUMP_READINGS = 5;
const MOST_JUMP_READINGS = 20;
/** A rest so long tells the drift of the zero. */
const LONG_REST_MS = 20_000;
const REST_READINGS = 30;

/**
 * Begins to follow a scale whose empty or tared vessel shows zero.
 *
 * @example
 * let state = startFollowing({ readabilityG: 1 });
 * state = followScale(state, { atMs: 100, g: 0 });
 */
export function startFollowing({ readabilityG }: { readabilityG: number }): Following {
  return {
    readabilityG,
    saidG: readabilityG,
    seen: [],
    heldG: 0,
    settled: false,
    doubtG: MOST_DOUBT * readabilityG,
    question: null,
    offsetG: 0,
    place: 'on',
    recent: [],
    jump: null,
    rest: null,
    beforeG: 0,
    liftedG: null,
    offZero: null,
    restedAtMs: null,
    carriedDoubt: 0,
  };
}

const waits = ({ question }: Following) => question !== null && question.code !== 'zeroed';
const moving = (state: Following): Following => ({ ...state, settled: false, rest: null });

function answered(state: Following, { carryOn }: Answer): Following {
  const { question, recent, offsetG, jump } = state;
  if (!question) return state;
  if (jump && carryOn) return { ...state, question: null, jump: { ...jump, isAnswered: true } };
  if (jump)
    return { ...moving(state), question: null, jump: null, offsetG: 0, recent: jump.after, carriedDoubt: 0 };
  const anew = { ...moving(state), question: null, offZero: null };
  // What was held comes on top of what the display shows.
  const shift =
    question.code === 'zeroed' ? (carryOn ? 0 : -question.wasG) : carryOn ? question.wasG - offsetG : 0;
  const moved = recent.map(({ atMs, g }) => ({ atMs, g: g + shift }));
  const heldG = moved.length > 0 ? median(moved.slice(-3)) : shift;
  return {
    ...anew,
    offsetG: offsetG + shift,
    recent: moved,
    heldG,
    carriedDoubt: carryOn ? state.carriedDoubt : 0,
  };
}

function blank(state: Following): Following {
  if (state.place === 'blank') return state;
  const beforeG = state.place === 'off' || waits(state) ? state.beforeG : state.heldG;
  return { ...moving(state), place: 'blank', beforeG, heldG: beforeG, recent: [], jump: null };
}

/**
 * The first reading after the display was blank or nothing was heard: with something held that is not what is shown now,
 * two stories fit. At zero the scale begins anew, or zero was pressed; elsewhere it was poured on, or both.
 */
function awake(state: Following, sample: Sample): Following {
  const { readabilityG, beforeG, offsetG } = state;
  const near = NEAR_ZERO * readabilityG;
  const on: Following = { ...state, place: 'on' };
  const isLifted = sample.g + offsetG < -OFF * readabilityG && sample.g < -near;
  const isAsBefore = Math.abs(sample.g + offsetG - beforeG) <= near;
  if (isLifted || isAsBefore || Math.abs(beforeG) <= near) return on;
  const isAtZero = Math.abs(sample.g) <= near;
  return {
    ...on,
    offsetG: isAtZero ? 0 : offsetG,
    question: { code: 'slept', wasG: beforeG },
    heldG: beforeG,
  };
}

/** When the last reading came; null before any. */
const lastAtMs = ({ recent, jump }: Following) => jump?.after.at(-1)?.atMs ?? recent.at(-1)?.atMs ?? null;

/** Whether the display fell to zero from one reading to the next. */
function fell(state: Following, sample: Sample): boolean {
  const { recent, readabilityG, offsetG, place, rest } = state;
  const last = recent.at(-1);
  if (!last || place === 'off' || sample.atMs - last.atMs > gapMs(state)) return false;
  const shown = (rest?.g ?? last.g) - offsetG;
  if (Math.abs(shown - sample.g) < JUMP * readabilityG) return false;
  const flowG = Math.abs(last.g - (recent.at(-2) ?? last).g);
  const near = Math.max(NEAR_ZERO * readabilityG, shown > 0 ? JUMP_SHARE * shown : 0, 2.2 * flowG);
  return Math.abs(sample.g) <= near && Math.abs(shown) > JUMP * readabilityG;
}

/** Whether the display came back, in one step after a glitch or to where it rested until just now, after a knock. */
function cameBack(state: Following, { before, after }: NonNullable<Following['jump']>): boolean {
  const { readabilityG, offsetG, beforeG, restedAtMs } = state;
  const latest = after.at(-1)!;
  const near = JUMP * readabilityG;
  const isNear = (g: number) => Math.abs(latest.g - g) < Math.min(Math.abs(latest.g), near);
  const wasNear = (g: number) => Math.abs(after.at(-2)!.g - g) < near;
  if (after.length === 2 && isNear(before.at(-1)!.g - offsetG)) return true;
  const restedShown = beforeG - offsetG;
  const justRested = restedAtMs !== null && latest.atMs - restedAtMs <= KNOCK_MS;
  const isRested = after.length > 2 && isNear(restedShown) && wasNear(restedShown);
  return justRested && Math.abs(restedShown) > 2 * near && isRested;
}

/** It was no zero: the readings are taken as they are. */
function forgotten(state: Following, { before, after }: NonNullable<Following['jump']>): Following {
  const question = state.question?.code === 'zeroed' ? null : state.question;
  const taken = after.map(({ atMs, g }) => ({ atMs, g: g + state.offsetG }));
  return { ...moving(state), question, jump: null, recent: [...before, ...taken] };
}

/** Makes out a jump once enough readings came after it: a knock that came back, or zero pressed. */
function madeOut(state: Following, jump: NonNullable<Following['jump']>): Following {
  const { readabilityG, offsetG } = state;
  const latest = jump.after.at(-1)!;
  // Readings after it are as the display shows them. Back where it was: a knock. Falling on: the vessel is lifted.
  const isShaken = trembles(jump.before, readabilityG) || trembles(jump.after, readabilityG);
  const isBack = isShaken || (jump.after.length <= JUMP_READINGS + 1 && cameBack(state, jump));
  const low = -OFF * readabilityG;
  const isLifted = latest.g < low && latest.g < jump.after[0]!.g + low;
  if (isBack || isLifted) return forgotten(state, jump);
  const isStill = jump.isRest && Math.abs(lineThrough(jump.after).slopePerS) < STEADY_SLOPE * readabilityG;
  const { sizeG, doubtG } = (isStill ? jumpAtRest : jumpBetween)(
    jump.before.map(({ atMs, g }) => ({ atMs, g: g - offsetG })),
    jump.after,
    readabilityG,
  );
  const dropG = jump.before.at(-1)!.g - offsetG - jump.after[0]!.g;
  const isNone = Math.abs(sizeG) < NEAR_ZERO * readabilityG || Math.abs(sizeG - dropG) > Math.abs(dropG) / 2;
  if (jump.after.length >= JUMP_READINGS && isNone) return forgotten(state, jump);
  const carried = jump.after.map(({ atMs, g }) => ({ atMs, g: g + offsetG + sizeG }));
  const heldG = median(carried.slice(-3));
  const waiting: Following = { ...moving(state), jump, heldG };
  if (jump.after.length < JUMP_READINGS) return waiting;
  const zeroed: Question | null = jump.isAnswered ? null : { code: 'zeroed', wasG: offsetG + sizeG };
  const asked = state.question ?? zeroed;
  if (jump.after.length < MOST_JUMP_READINGS) return { ...waiting, question: asked };
  return {
    ...waiting,
    jump: null,
    question: asked,
    offsetG: offsetG + sizeG,
    recent: carried,
    carriedDoubt: Math.hypot(state.carriedDoubt, doubtG / readabilityG),
  };
}

function settle(state: Following): Following {
  const { readabilityG, recent, rest } = state;
  const nowMs = recent.at(-1)!.atMs;
  const doubtG = MOST_DOUBT * readabilityG;
  if (rest) {
    const creep = (CREEP_PER_S * (nowMs - rest.sinceMs)) / 1000;
    const away = (g: number) => Math.abs(g - rest.g) / readabilityG - creep;
    const isStill =
      away(recent.at(-1)!.g) <= FAR_OFF &&
      away(median(recent.slice(-3))) <= MOVED_3 &&
      away(mean(recent.slice(-5))) <= MOVED_5 &&
      away(mean(recent.slice(-8))) <= MOVED_8;
    if (isStill) {
      const count = rest.count + 1;
      const g = count <= REST_READINGS ? rest.g + (recent.at(-1)!.g - rest.g) / count : rest.g;
      return { ...state, settled: true, heldG: g, doubtG, rest: { ...rest, g, count } };
    }
    return undrifted(state, rest, nowMs);
  }
  const found = restingAt(state) ?? backAsBefore(state);
  const heldG = found?.g ?? median(recent.slice(-3));
  if (!found || state.carriedDoubt > MOST_CARRIED)
    return { ...state, settled: false, heldG, doubtG: MOST_DOUBT * readabilityG };
  return { ...state, settled: true, heldG, doubtG, rest: { ...found, sinceMs: nowMs } };
}

/** After a long rest, what the zero drifted by meanwhile is taken off. */
function undrifted(
  state: Following,
  { g, sinceMs }: NonNullable<Following['rest']>,
  nowMs: number,
): Following {
  const { recent, readabilityG, offsetG } = state;
  const still = recent.filter(({ atMs }) => atMs < nowMs - 1500);
  const moved = moving({ ...state, heldG: median(recent.slice(-3)) });
  if (nowMs - sinceMs < LONG_REST_MS || still.length < 10) return moved;
  const driftG = mean(still) - g;
  if (Math.abs(driftG) > readabilityG) return moved;
  return {
    ...moved,
    offsetG: offsetG - driftG,
    heldG: moved.heldG - driftG,
    recent: recent.map((sample) => ({ ...sample, g: sample.g - driftG })),
  };
}

function kept(recent: readonly Sample[], sample: Sample): Sample[] {
  const last = recent.at(-1);
  const gap = gapMs({ recent: [...recent] });
  const keptMs = Math.max(KEPT_MS, SLOW_READINGS * 2 * everyMs({ recent: [...recent] }));
  // A clock that jumps back, or a long silence: what came before says nothing of now.
  if (last && (sample.atMs <= last.atMs - gap || sample.atMs - last.atMs > gap)) return [sample];
  return [...recent.filter(({ atMs }) => sample.atMs - atMs <= keptMs), sample];
}

/** The readings a jump is measured from: where the hand rests only those of the rest, not the pour before it. */
function beforeJump({ recent, rest }: Following): Sample[] {
  const last = recent.slice(-MOST_JUMP_READINGS);
  return rest ? last.filter(({ atMs }) => atMs >= rest.fromMs) : last;
}

function off(state: Following, sample: Sample): Following {
  if (state.place === 'off') return { ...state, recent: kept(state.recent, sample) };
  const { readabilityG, rest, recent } = state;
  const low = [...recent.slice(-2), sample].every(({ g }) => g < -OFF * readabilityG);
  const next: Following = { ...moving(state), recent: kept(recent, sample), heldG: state.heldG };
  if (!low) return next;
  const steady = recent.filter(({ atMs }) => atMs < sample.atMs - gapMs(state));
  // Zero was pressed while the display still fell: it is the same vessel that is off.
  if (state.offZero && state.liftedG !== null) return { ...next, place: 'off', heldG: state.liftedG };
  const before = rest?.g ?? (steady.length > 0 ? median(steady.slice(-3)) : state.beforeG);
  return { ...next, place: 'off', heldG: before, beforeG: before, liftedG: before, offZero: null };
}

function onPan(state: Following, sample: Sample): Following {
  const { readabilityG, liftedG, place } = state;
  const isBack = place === 'off';
  const recent = isBack ? [sample] : kept(state.recent, sample);
  const next = settle({ ...state, place: 'on', recent, rest: isBack ? null : state.rest });
  if (!next.settled) return next;
  const near = NEAR_ZERO * readabilityG;
  const isBare = next.offZero ? next.heldG <= near : Math.abs(next.heldG) <= near;
  const isEmptied = liftedG !== null && liftedG > JUMP * readabilityG && isBare;
  if (isEmptied)
    return { ...moving(next), liftedG: null, question: { code: 'emptied', wasG: liftedG }, heldG: liftedG };
  const carried = liftedG === null ? null : carriedOver(next, next.heldG);
  if (carried) return carried;
  // Only where it rests is it known what was held before something else happens.
  return { ...next, liftedG: null, offZero: null, beforeG: next.heldG, restedAtMs: sample.atMs };
}

/** While a question is open nothing settles; the vessel back with what it held answers it by itself. */
function asking(state: Following, { atMs, g }: Sample): Following {
  const asked = { ...moving(state), heldG: state.question!.wasG };
  const next = { ...asked, recent: kept(state.recent, { atMs, g: g + state.offsetG }) };
  const found = state.offZero && restingAt(next);
  return (found && carriedOver(next, found.g)) ?? next;
}

/** The state with the step that the display is seen to have; another one than before is a movement. */
function inSteps(state: Following, g: number): Following {
  const seen = seenWith(state.seen, g, state.readabilityG);
  if (seen === state.seen) return state;
  const readabilityG = stepSeen(seen, state.saidG);
  if (readabilityG === state.readabilityG) return { ...state, seen };
  return { ...moving(state), seen, readabilityG, doubtG: MOST_DOUBT * readabilityG };
}

/**
 * Follows one reading, or takes the maker's answer to the question that is open.
 *
 * @example
 * state = followScale(state, { atMs: 1200, g: 212, state: 'ok' });
 * if (state.question) state = followScale(state, { carryOn: true });
 */
export function followScale(state: Following, input: Reading | Answer): Following {
  if ('carryOn' in input) return answered(state, input);
  const { atMs, g } = input;
  if (!Number.isFinite(atMs)) return state;
  if (g === null) return blank(state);
  if (!Number.isFinite(g)) return state;
  const shown = { atMs, g };
  const sinceMs = atMs - (lastAtMs(state) ?? -Infinity);
  // The same reading again, or one that comes late, tells nothing new.
  if (sinceMs <= 0 && sinceMs >= -SILENT_MS) return state;
  const stepped = inSteps(state, g);
  const isHeard = !Number.isFinite(sinceMs) || Math.abs(sinceMs) <= SILENT_MS;
  const heard = isHeard ? stepped : blank(stepped);
  const current = heard.place === 'blank' ? awake(heard, shown) : heard;
  if (waits(current)) return asking(current, shown);
  if (current.jump) return madeOut(current, { ...current.jump, after: [...current.jump.after, shown] });
  if (fell(current, shown))
    return madeOut(current, {
      before: beforeJump(current),
      after: [shown],
      isAnswered: false,
      isRest: current.rest !== null,
    });
  const sample = { atMs, g: g + current.offsetG };
  const offZero = zeroPressedOff(current, shown) ?? stillAtZero(current, shown);
  const seen = offZero === current.offZero ? current : { ...current, offZero };
  return sample.g < -OFF * current.readabilityG ? off(seen, sample) : onPan(seen, sample);
}
