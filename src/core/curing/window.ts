/**
 * When a block can be cut (cure page): craft advice from the formula, by portion, narrowed by the maker's own past
 * batches of that bar where it sets fast: a day's window stays a day's, however often it was cut early in it. Hours count
 * from the pour.
 */
import { isFatty } from '../formula/fats';
import type { Batch } from '../batch/types';
import type { TraitMaterial } from '../formula/traits';
import type { Formula } from '../formula/types';
import type { Pace } from '../heat/pace';
import { loadsOf } from '../making/loads';
import { isBefore, MS_PER_HOUR } from '../quantities/day';
import { isLauric, isSolid, sugarShare, type Load } from '../making/roles';
import type { REST_WAYS } from '../batch/types';

export interface PortionWindow {
  /** Null for the whole batter. */
  portion: string | null;
  fromHours: number;
  /** Null where there is no upper end: single moulds. */
  toHours: number | null;
  missedAfterHours: number | null;
  why: string[];
}

export interface CutWindow extends Omit<PortionWindow, 'portion'> {
  /** By portion where portions set at different speeds; otherwise one entry. */
  portions: PortionWindow[];
  /** Always craft: advice, never a rule. */
  standing: 'craft';
}

/** A past batch of the same bar, and how its cut was judged: by the checks named `cut`. */
export type PastCut = Pick<Batch, 'poured' | 'cut' | 'checks'>;

export interface WindowOptions {
  /** How the block rests, where that is known. */
  rested?: (typeof REST_WAYS)[number] | null;
  /** Poured into single-bar moulds: they are taken out when hard, and never crumble by being late. */
  isSingle?: boolean;
  /** From how it heats, by portion; stands in the place of how it rests. */
  pace?: readonly Pace[];
  /** Hours after the pour at which a cut was tried on this batch and put off. */
  putOffHours?: readonly number[];
  /** What a finger felt of this batch, hours after the pour. */
  felt?: readonly Felt[];
}

/** What a finger on the block tells: it dents, it holds (firm, and a nail still marks it), or it is hard. */
export const FINGERS = ['dents', 'holds', 'hard'] as const;
/** Hard to a finger is no reason to wait. */
export const HARD = 'hard' satisfies (typeof FINGERS)[number];
export type Finger = (typeof FINGERS)[number];

export interface Felt {
  hours: number;
  finger: Finger;
}

/** Name of the check that says how a cut went; its values. */
export const CUT_CHECK = 'cut';
export const TOO_SOFT = 'too soft';
export const CRUMBLED = 'crumbled';

type Hours = readonly [from: number, to: number, missed: number];

/** Usual windows, hours (craft; cure page). */
const SALTED: Hours = [1, 4, 6];
const ORDINARY: Hours = [12, 36, 72];
const SOFT_AND_WET: Hours = [36, 84, 120];
/** How a salted block is cut (craft). */
const SALTED_HOW = 'cut it with a thick wire, put back what breaks off while it is warm, and never stamp it';
/** Salt stirred in above this, percent of the fats, makes a salted bar; lauric fats above this, one of pure coconut. */
const SALTED_FROM_PCT = 15;
const PURE_LAURIC_PCT = 85;
const MUCH_LAURIC_PCT = 50;
/** Between an ordinary batter and a soft and wet one: shares of the fats, percent. */
const SOFT_OILS_PCT = [65, 85] as const;
const LIQUID_PCT = [36, 42] as const;
const LACTATE_PCT = 1;
const SUGARS_PCT = 3;
const KEPT_WARM = 0.8;
const LEFT_CHILLED = 1.5;
const WITH_LACTATE = 0.8;
const WITH_SUGARS = 1.15;
/** After a try that was too soft, the next is worth it this much later. */
const AFTER_A_TRY = 1.12;
const LEAST_PAUSE_HOURS = 0.25;
/** Own past cuts that went well widen into a window of their own by this share. */
const AROUND_OWN_CUTS = 0.25;

interface Batter {
  saltPct: number;
  lauricPct: number;
  softPct: number;
  liquidPct: number;
  lactatePct: number;
  sugarsPct: number;
}

const between = (value: number, [low, high]: readonly [number, number]) =>
  Math.min(1, Math.max(0, (value - low) / (high - low)));
const pct = (value: number) => `${Math.round(value)} %`;
const round = (hours: number) => Math.round(hours * 4) / 4;

/** What sets the speed of one part of the batter: the common batter with what the portion holds besides. */
function batterOf(loads: readonly Load[], portion: string | null, share: number): Batter {
  const sum = (of: (load: Load) => number) => loads.reduce((total, load) => total + of(load), 0);
  const within = ({ portion: own, massG }: Load) =>
    own === null ? massG : own === portion && share > 0 ? massG / share : 0;
  const fatsG = sum((load) => (isFatty(load.material) ? load.massG : 0)) || 1;
  const ofFats = (of: (load: Load) => number) => (100 * sum(of)) / fatsG;
  return {
    saltPct: ofFats((load) => (load.role === 'salt' ? within(load) : 0)),
    lauricPct: ofFats((load) => (isFatty(load.material) && isLauric(load.material) ? load.massG : 0)),
    softPct: ofFats((load) => (isFatty(load.material) && !isSolid(load.material) ? load.massG : 0)),
    liquidPct: ofFats(
      (load) => (within(load) * (isFatty(load.material) ? 0 : (load.material.waterPct ?? 0))) / 100,
    ),
    lactatePct: ofFats((load) => (load.material.kind === 'lactate' ? within(load) : 0)),
    sugarsPct: ofFats((load) => within(load) * sugarShare(load.material)),
  };
}

function setBy(
  portion: string | null,
  batter: Batter,
  { rested, pace }: WindowOptions,
): { hours: Hours; why: string[] } {
  const { saltPct, lauricPct, softPct, liquidPct, lactatePct, sugarsPct } = batter;
  if (saltPct >= SALTED_FROM_PCT)
    return {
      hours: SALTED,
      why: [`salt at ${pct(saltPct)} of the fats sets within hours and then crumbles`, SALTED_HOW],
    };
  if (lauricPct >= PURE_LAURIC_PCT)
    return { hours: SALTED, why: [`lauric fats at ${pct(lauricPct)} set within hours and then crumble`] };
  const why: string[] = [];
  const soft = between(softPct, SOFT_OILS_PCT);
  const wet = between(liquidPct, LIQUID_PCT);
  const slow = (soft + wet) / 2;
  let factor = 1;
  const note = (words: string, by = 1) => {
    why.push(words);
    factor *= by;
  };
  if (soft > 0) note(`soft oils at ${pct(softPct)} of the fats set slowly`);
  if (wet > 0) note(`water at ${pct(liquidPct)} of the fats keeps it soft`);
  if (lauricPct >= MUCH_LAURIC_PCT) note(`lauric fats at ${pct(lauricPct)} set early`, 0.8);
  if (lactatePct >= LACTATE_PCT) note('lactate hardens it early', WITH_LACTATE);
  if (sugarsPct >= SUGARS_PCT) note('sugars keep it soft', WITH_SUGARS);
  const own = pace?.find((one) => one.portion === portion);
  if (own) note(own.why, own.factor);
  else if (rested === 'warm') note('kept warm, it sets earlier', KEPT_WARM);
  else if (rested === 'chill') note('chilled, it sets later', LEFT_CHILLED);
  if (why.length === 0) why.push('an ordinary batter is cut after about a day');
  const hours = ORDINARY.map((plain, at) => (plain + slow * (SOFT_AND_WET[at]! - plain)) * factor);
  return { hours: [hours[0]!, hours[1]!, hours[2]!], why };
}

const hoursOf = ({ poured, cut }: PastCut) =>
  poured && cut ? (Date.parse(cut.at) - Date.parse(poured.at)) / 3_600_000 : NaN;

/** How a past cut was judged: the last check of it, or by its seconds where nobody said. */
function judged({ cut, checks }: PastCut): 'good' | 'soft' | 'crumbled' | null {
  const check = checks
    .filter((one) => one.check === CUT_CHECK && cut !== null && !isBefore(one.at, cut.at))
    .at(-1);
  if (!check) return cut && cut.bars > 0 && cut.seconds / cut.bars <= 0.1 ? 'good' : null;
  if (check.outcome === 'good') return 'good';
  if (check.value === TOO_SOFT) return 'soft';
  return check.value === CRUMBLED ? 'crumbled' : null;
}

const hoursWords = (hours: number) => `${Number(hours.toFixed(1))} h`;

/** Whether it is over within hours, as of salted and pure coconut bars; `missedAfterHours` is null of single moulds. */
export const setsFast = ({ fromHours }: Pick<PortionWindow, 'fromHours'>): boolean => fromHours <= SALTED[1];

/** Moves a window by the maker's own cuts: good ones draw together what sets fast, bad ones cut it off. */
function narrowed(window: PortionWindow, past: readonly PastCut[]): PortionWindow {
  const cuts = past
    .map((one) => ({ hours: hoursOf(one), judged: judged(one) }))
    .filter(({ hours }) => hours > 0);
  const good = cuts.filter((one) => one.judged === 'good').map(({ hours }) => hours);
  const soft = cuts.filter((one) => one.judged === 'soft').map(({ hours }) => hours);
  const crumbled = cuts.filter((one) => one.judged === 'crumbled').map(({ hours }) => hours);
  let { fromHours: from, toHours: to, missedAfterHours: missed } = window;
  const why = [...window.why];
  if (good.length > 0) {
    const [least, most] = [Math.min(...good), Math.max(...good)];
    const around = [least * (1 - AROUND_OWN_CUTS), most * (1 + AROUND_OWN_CUTS)] as const;
    // What sets fast is drawn together around them; anywhere they lie outside, the window reaches to them.
    from = Math.min(least, setsFast(window) ? Math.max(from, around[0]) : from);
    if (to !== null) to = Math.max(most, setsFast(window) ? Math.min(to, around[1]) : to);
    why.push(
      `your ${good.length === 1 ? 'cut' : `${good.length} cuts`} that went well came after ${least === most ? hoursWords(least) : `${hoursWords(least)} to ${hoursWords(most)}`}`,
    );
  }
  if (soft.length > 0) {
    const latest = Math.max(...soft);
    from = Math.max(from, latest * AFTER_A_TRY);
    why.push(`after ${hoursWords(latest)} it was still too soft`);
  }
  if (crumbled.length > 0 && to !== null) {
    const earliest = Math.min(...crumbled);
    to = Math.min(to, earliest * (1 - AROUND_OWN_CUTS / 2));
    missed = missed === null ? null : Math.min(missed, earliest);
    why.push(`after ${hoursWords(earliest)} it crumbled`);
  }
  return ordered({ ...window, fromHours: from, toHours: to, missedAfterHours: missed, why });
}

/** What fingers felt before a cut, hours after the pour; of a batch that is not poured, nothing. */
export function feltOf({ poured, cut, checks }: PastCut): Felt[] {
  if (!poured) return [];
  return checks.flatMap(({ check, value, at }): Felt[] => {
    if (check !== CUT_CHECK || (cut !== null && !isBefore(at, cut.at))) return [];
    const finger = value === TOO_SOFT ? 'dents' : FINGERS.find((one) => one === value);
    const hours = (Date.parse(at) - Date.parse(poured.at)) / MS_PER_HOUR;
    return finger && hours >= 0 ? [{ hours, finger }] : [];
  });
}

const isFirm = ({ finger }: Felt) => finger !== 'dents';

/** The window after what a finger felt now: firm, it is open; hard, it is cut at once. */
function feltNow(window: PortionWindow, felt: readonly Felt[]): PortionWindow {
  const firm = felt.filter(isFirm).sort((a, b) => b.hours - a.hours)[0];
  if (!firm) return window;
  const isHard = firm.finger === 'hard';
  const toHours =
    isHard && window.toHours !== null
      ? Math.min(window.toHours, firm.hours + LEAST_PAUSE_HOURS)
      : window.toHours;
  return ordered({
    ...window,
    fromHours: Math.min(window.fromHours, firm.hours),
    toHours,
    why: [
      ...window.why,
      isHard
        ? `hard to the finger after ${hoursWords(firm.hours)}: cut it at once`
        : `firm to the finger after ${hoursWords(firm.hours)}`,
    ],
  });
}

/** What fingers felt of earlier batches: firm sooner, it opens sooner; it still dented, not before that. */
function feltBefore(window: PortionWindow, past: readonly PastCut[]): PortionWindow {
  const felt = past.flatMap(feltOf);
  const firm = Math.min(...felt.filter(isFirm).map(({ hours }) => hours));
  const dented = Math.max(...felt.filter((one) => !isFirm(one)).map(({ hours }) => hours));
  const why: string[] = [];
  let { fromHours } = window;
  if (firm < fromHours) {
    fromHours = firm;
    why.push(`an earlier batch was firm to the finger after ${hoursWords(firm)}`);
  }
  if (dented > fromHours && dented < firm) {
    fromHours = dented;
    why.push(`an earlier batch still dented after ${hoursWords(dented)}`);
  }
  return why.length > 0 ? ordered({ ...window, fromHours, why: [...window.why, ...why] }) : window;
}

/** After a try on this batch that was put off, the window opens later, and closes no earlier than it opens. */
function movedBy(window: PortionWindow, putOff: readonly number[]): PortionWindow {
  const [last] = [...putOff].filter((hours) => hours >= 0).sort((a, b) => b - a);
  if (last === undefined) return window;
  const from = Math.max(window.fromHours, last * AFTER_A_TRY, last + LEAST_PAUSE_HOURS);
  return ordered({
    ...window,
    fromHours: from,
    why: [...window.why, `tried after ${hoursWords(last)} and put off`],
  });
}

function ordered(window: PortionWindow): PortionWindow {
  const fromHours = round(window.fromHours);
  const toHours = window.toHours === null ? null : Math.max(round(window.toHours), fromHours);
  const missedAfterHours =
    window.missedAfterHours === null ? null : Math.max(round(window.missedAfterHours), toHours ?? 0);
  return { ...window, fromHours, toHours, missedAfterHours };
}

function batters(
  formula: Formula,
  materials: readonly TraitMaterial[],
): { portion: string | null; batter: Batter }[] | null {
  const found = loadsOf(formula, materials);
  return (
    found?.portions.map(({ id, share }) => ({ portion: id, batter: batterOf(found.loads, id, share) })) ??
    null
  );
}

/**
 * When to cut a bar. Portions that set at different speeds have windows of their own; the whole follows the one that
 * closes first, since a block that is cut late crumbles there. A formula that does not reckon gets the ordinary
 * window, and says so. Never throws.
 *
 * @example
 * cutWindow(formula, materials, past, { rested: 'warm' }); // { fromHours: 14, toHours: 38, missedAfterHours: 70, … }
 */
export function cutWindow(
  formula: Formula,
  materials: readonly TraitMaterial[],
  past: readonly PastCut[] = [],
  options: WindowOptions = {},
): CutWindow {
  const found = batters(formula, materials);
  const plain = found?.map(({ portion, batter }) => ({ portion, ...setBy(portion, batter, options) })) ?? [
    { portion: null, hours: ORDINARY, why: ['the formula does not reckon; this is the ordinary window'] },
  ];
  const windows = plain.map(({ portion, hours, why }) => {
    const window: PortionWindow = {
      portion,
      fromHours: hours[0],
      toHours: options.isSingle ? null : hours[1],
      missedAfterHours: options.isSingle ? null : hours[2],
      why: options.isSingle ? [...why, 'single moulds have no upper end'] : why,
    };
    const own = feltBefore(narrowed(window, past), past);
    return feltNow(movedBy(own, options.putOffHours ?? []), options.felt ?? []);
  });
  const first = windows.reduce((best, one) =>
    (one.toHours ?? Infinity) < (best.toHours ?? Infinity) ? one : best,
  );
  const later = windows.filter((one) => one !== first && one.fromHours > (first.toHours ?? Infinity));
  const { portion: _, ...whole } = ordered(first);
  return {
    ...whole,
    why: [
      ...whole.why,
      ...later.map(
        ({ portion, fromHours }) =>
          `“${portion}” is not firm before ${hoursWords(fromHours)}: pour it so that it can wait, or into single moulds`,
      ),
    ],
    portions: windows,
    standing: 'craft',
  };
}
