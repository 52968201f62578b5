/** The range as screens and server know it: every bar in one row. */
import type { AssessedLimit, Verdict } from '../formula/answer';
import type { Market } from '../formula/types';
import type { Hand } from '../hands/hand';

/** How a bar stands in one market it is sold in. */
export interface MarketStand {
  market: Market;
  verdict: Verdict;
  /** Least headroom over the binding limits, percent; null where nothing binds. */
  headroomPct: number | null;
  /** What that limit speaks of, in words. */
  boundBy: string | null;
}

/** `none`: no label was issued; `differs`: the last one issued in some market would read otherwise today. */
export type LabelState = 'none' | 'same' | 'differs';

/** The limit that stands closest, as it is drawn and said. */
export type ClosestLimit = Omit<AssessedLimit, 'contributors'>;

export interface RangeRow {
  id: string;
  name: string;
  note: string;
  collection: string;
  putAwayOn: string | null;
  /** Share of a limit that the maker keeps free, 0 to 1. */
  margin: number;
  /** Null where the formula does not reckon (`fault` says why) or is still being reckoned. */
  verdict: Verdict | null;
  closest: ClosestLimit | null;
  fault: string | null;
  isPending: boolean;
  /** Names of the fragrances and essential oils in it. */
  scents: string[];
  markets: MarketStand[];
  label: LabelState;
  /** Bars that can be sold, that cure, that were sold. */
  ready: number;
  curing: number;
  sold: number;
  /** Open tasks of the watch. */
  tasks: Hand[];
}

export const RANGE_GROUPS = ['none', 'scent', 'collection', 'market', 'bound'] as const;
export const RANGE_SHOWS = ['all', 'needs', 'over', 'unproven', 'differs', 'away'] as const;

/** A way of looking at the range. */
export interface RangeLook {
  find: string;
  show: (typeof RANGE_SHOWS)[number];
  market: Market | null;
  group: (typeof RANGE_GROUPS)[number];
}

export interface RangeView extends RangeLook {
  name: string;
}

export interface RangeViews {
  views: RangeView[];
  revision: number;
}

export interface RangeData {
  rows: RangeRow[];
  /** Of all bars, with those put away. */
  count: number;
  /** Rows still being reckoned. */
  pending: number;
}

/** A bar tried on another day or in other markets. */
export interface TriedBar {
  id: string;
  verdict: Verdict | null;
  markets: MarketStand[];
  fault: string | null;
}
