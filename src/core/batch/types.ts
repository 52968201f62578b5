/**
 * Batches: what was really made, as a list of events that is only ever added to (batch page). Masses in grams, times
 * ISO 8601 with offset, temperatures in °C.
 */
import type { TraitMaterial } from '../formula/traits';
import type { Formula, Market, RequestError, Stage } from '../formula/types';
import type { RunSheet } from '../making/run-sheet-types';

export const WEIGHED_HOW = ['scale', 'typed'] as const;
export const GUESSED_HOW = ['spoon', 'heaped', 'eye'] as const;
export const TEMPERATURES_OF = ['lye', 'fats', 'batter', 'cook', 'mould', 'room'] as const;
export const REST_WAYS = ['warm', 'leave', 'chill'] as const;
export const OUTCOMES = ['good', 'doubtful', 'bad'] as const;
export const DECISIONS = ['release', 'rework', 'discard'] as const;
export const MOVED_HOW = ['sale', 'sample', 'loss', 'own'] as const;
/** Check under which it is written down that the rest of the day was scaled, and by how much. */
export const SCALED_CHECK = 'scaled';
/** Check under which it is written down what lines are to come to in all, grams by line as JSON, so that the pot is right. */
export const RESCUED_CHECK = 'rescued';
export const NOTED_FOR = ['record', 'nextTime'] as const;

interface Common {
  id: string;
  at: string;
  by: string | null;
}

interface Drawn {
  lot?: string | null;
  portion?: string | null;
  /** Why it is taken although the lot speaks against it. */
  despite?: string | null;
  /** The step of the sheet it was weighed for, where several weigh the same line. */
  step?: string | null;
}

interface ByScale {
  massG: number;
  readabilityG: number;
  how: (typeof WEIGHED_HOW)[number];
}

interface ByGuess {
  massG: number;
  how: (typeof GUESSED_HOW)[number];
  /** As it was taken: "2 level teaspoons". */
  said?: string | null;
}

/** The fields of every type of event, besides those that all share. */
export interface EventFields {
  started: {
    product: string;
    version: number;
    formula: Formula;
    materials: TraitMaterial[];
    sheet: RunSheet;
    code: string;
  };
  stepDone: { step: string };
  stepUndone: { step: string };
  weighed: Drawn & ByScale & { line: string };
  guessed: Drawn & ByGuess & { line: string };
  corrected: {
    event: string;
    massG: number;
    reason: string;
    /** Why more is taken than the lot holds, or although it speaks against it. */
    despite?: string | null;
  };
  added: Drawn & (ByScale | ByGuess) & { material: string; stage: Stage };
  skipped: { line: string; reason: string };
  temperature: { of: (typeof TEMPERATURES_OF)[number]; c: number };
  split: { portions: { id: string; share: number }[] };
  poured: { moulds: { id: string; count: number }[]; leftoverG: number };
  rested: { way: (typeof REST_WAYS)[number] };
  stopped: { reason: string };
  cut: { bars: number; seconds: number; trimmingsG: number };
  /** Good bars that are seconds after all. */
  sorted: { bars: number; reason: string };
  barWeighed: { bar: string; massG: number; readabilityG: number };
  checked: { check: string; outcome: (typeof OUTCOMES)[number]; value?: string | null; note?: string | null };
  quarantined: { reason: string };
  decided: { decision: (typeof DECISIONS)[number]; reason: string };
  /** `despite`: why it is released although something speaks against it. */
  released: { bars: number; netMassG: number; markets: Market[]; despite?: string | null };
  moved: {
    bars: number;
    how: (typeof MOVED_HOW)[number];
    to?: string | null;
    note?: string | null;
    market?: Market | null;
    /** Why it is sold where it was not released for. */
    despite?: string | null;
  };
  noted: { text: string; for: (typeof NOTED_FOR)[number] };
}

export type EventType = keyof EventFields;
export type EventOf<T extends EventType> = Common & { type: T } & EventFields[T];
export type BatchEvent = { [T in EventType]: EventOf<T> }[EventType];

export type BatchState =
  'pouring' | 'poured' | 'cut' | 'curing' | 'released' | 'soldOut' | 'discarded' | 'stopped';

/** One weighing or guess as it counts now. */
export interface Weighing {
  event: string;
  at: string;
  by: string | null;
  massG: number;
  /** What was first said, where it was corrected since. */
  firstG: number | null;
  correction: string | null;
  /** Null for a guess. */
  readabilityG: number | null;
  how: (typeof WEIGHED_HOW)[number] | (typeof GUESSED_HOW)[number];
  lot: string | null;
  portion: string | null;
  despite: string | null;
  /** Null where it was not said. */
  step: string | null;
  /** Of a guess, as it was taken: "2 level teaspoons"; left out where it was told in grams. */
  said?: string;
}

/** A line of the formula, the alkali, a lye stock or something extra, as it stands. */
export interface BatchLine {
  line: string;
  material: string;
  stage: Stage | null;
  portion: string | null;
  /** Null for something extra. */
  plannedG: number | null;
  massG: number;
  weighings: Weighing[];
  /** Why it was left out; null where it was not. */
  skipped: string | null;
  isExtra: boolean;
}

/** The batch as it stands, folded from its events. */
export interface Batch {
  product: string;
  version: number;
  code: string;
  startedAt: string;
  startedBy: string | null;
  formula: Formula;
  materials: TraitMaterial[];
  sheet: RunSheet;
  state: BatchState;
  /** Stands on top of the state. */
  isQuarantined: boolean;
  lines: BatchLine[];
  /** By how much the day was scaled; 1 where it was not. */
  scale: number;
  /** What lines come to in all, grams, where that was settled anew at the pot. */
  wantedG: Readonly<Record<string, number>>;
  stepsDone: { step: string; at: string; by: string | null }[];
  temperatures: { of: (typeof TEMPERATURES_OF)[number]; c: number; at: string }[];
  /** As really split; null while that is not known. */
  portions: { id: string; share: number }[] | null;
  poured: { at: string; moulds: { id: string; count: number }[]; leftoverG: number } | null;
  rested: (typeof REST_WAYS)[number] | null;
  stopped: { at: string; reason: string } | null;
  cut: { at: string; bars: number; seconds: number; trimmingsG: number } | null;
  sorted: { at: string; bars: number; reason: string }[];
  barWeighings: {
    event: string;
    bar: string;
    massG: number;
    readabilityG: number;
    at: string;
    /** Why it was left out of the cure; null where it counts. */
    leftOut: string | null;
    /** Why it is right although it fits no cure; null where nobody said so. */
    confirmed: string | null;
  }[];
  checks: { check: string; outcome: string; value: string | null; note: string | null; at: string }[];
  quarantines: {
    at: string;
    reason: string;
    decision: string | null;
    why: string | null;
    decidedAt: string | null;
  }[];
  released: { at: string; bars: number; netMassG: number; markets: Market[]; despite: string | null }[];
  moved: {
    at: string;
    bars: number;
    how: (typeof MOVED_HOW)[number];
    to: string | null;
    note: string | null;
    market: Market | null;
  }[];
  notes: { at: string; by: string | null; text: string; for: string }[];
  /** Bars good for sale, released, gone, and still here. */
  bars: { good: number; released: number; gone: number; left: number };
}

/**
 * How a batch stands after its events, without its plan and what went into the pot: small enough to be kept beside
 * them, and all that the rack, the till and the stock go by.
 */
export interface BatchStanding extends Omit<
  Batch,
  | 'formula'
  | 'materials'
  | 'sheet'
  | 'lines'
  | 'wantedG'
  | 'stepsDone'
  | 'temperatures'
  | 'portions'
  | 'notes'
> {
  sheet: Pick<RunSheet, 'bars'>;
  /** What of the pour became bars, grams; null before the cut. */
  barsG: number | null;
  /** The checks that are usual before it is sold, by what went in. */
  asked: { id: string; name: string }[];
  /** What of lots went in: grams by lot and portion, of the alkali in a lye stock; a portion of null is the whole batter. */
  drawn: { lot: string; line: string; portion: string | null; massG: number }[];
}

/** What is wrong with an event; the path is the field within it. */
export type Refusal = RequestError;
