/** The watch as screens and server know it. */
import type { Change, Effect } from '../change/types';
import type { InCupboard, StandInBar } from '../change/in-bar';
import type { Priced, Substitute } from '../change/substitutes';
import type { NewTask } from '../change/tasks';
import type { Market } from '../formula/types';
import type { HandUrgency } from '../hands/hand';

export const CHANGE_STATES = ['running', 'done', 'cancelled', 'failed'] as const;
export type ChangeState = (typeof CHANGE_STATES)[number];

export interface ChangeDecision {
  decision: 'accepted' | 'declined';
  at: string;
  /** The note of an acceptance or the reason of a refusal. */
  note: string | null;
}

/** A change without its effects, for lists. */
export interface ChangeEntry {
  id: string;
  at: string;
  change: Change;
  /** What it is, in words. */
  words: string;
  state: ChangeState;
  decision: ChangeDecision | null;
  /** Rows touched, and of those the ones that are worse; null before it is done. */
  touched: number | null;
  worse: number | null;
}

/** A change with its effects. */
export interface ChangeView extends ChangeEntry {
  done: number;
  of: number;
  effects?: Effect[];
  unchanged?: number;
  message?: string;
}

export interface Task extends NewTask {
  id: string;
  change: string | null;
  at: string;
  doneAt: string | null;
  /** What was done. */
  doneNote: string | null;
  /** The bar it is about, or whose batch or label it is about; told in lists alone. */
  bar?: string | null;
}

/** What falls due by itself. */
export interface AheadRow {
  id: string;
  on: string;
  kind: 'list' | 'limit' | 'paper' | 'lot' | 'opened' | 'durability';
  urgency: HandUrgency;
  words: string;
  /** Names of what it touches. */
  touches: string[];
  /** Where to look. */
  href: string | null;
}

/** Small things of one kind told in one line: "12 lots pass their day". */
export interface AheadFold {
  kind: AheadRow['kind'];
  count: number;
  words: string;
}

/** What the watch shows. */
export interface WatchData {
  today: string;
  /** The first of those that wait, and the last that were done. */
  tasks: Task[];
  taskCounts: { open: number; done: number };
  changes: ChangeEntry[];
  /** The first rows of what falls due, small things folded; of all, the day and whether a rule changes on it. */
  ahead: {
    until: string;
    rows: AheadRow[];
    /** Of those that are not folded. */
    count: number;
    folds: AheadFold[];
    marks: { on: string; isRule: boolean }[];
  };
  bars: { id: string; name: string; markets: Market[] }[];
  /** The edition in force, and those on file. */
  edition: string;
  editions: string[];
}

/** A material that could take another's place on a line of one bar, with what it does there. */
export interface RankedInBar extends StandInBar, InCupboard {
  name: string;
}

/** How a bar stands with what is on a line, and with what could be. */
export interface LineSubstitutes {
  now: RankedInBar;
  candidates: RankedInBar[];
  currency: string;
}

/** A material that could take another's place, with what it does. */
export interface RankedSubstitute extends Substitute, Priced {
  name: string;
}
