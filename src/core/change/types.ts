/** Changes of the world around the bars, and what they touch (change page). Percents from 0 to 100, days YYYY-MM-DD. */
import type { Verdict } from '../formula/answer';
import type { Declarable, Limit, Market } from '../formula/types';
import type { AcceptedPaper } from '../records/papers';

export const CHANGE_KINDS = ['paper', 'edition', 'day', 'swap', 'lot', 'limit', 'market'] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];
export const SWAP_BY = ['mass', 'headroom'] as const;

/** Another rulebook edition, as it is taken in: what a snapshot takes of it. */
export interface InlineEdition {
  edition: string;
  dated: string;
  title: string;
  limits: Limit[];
  declarables: Declarable[];
}

export type Change =
  /** `inbox`: the paper in the tray it was read from. */
  | { kind: 'paper'; material: string; paper: AcceptedPaper; inbox?: string | null }
  /** An edition on file by its name, or one inline. */
  | { kind: 'edition'; edition: string | InlineEdition }
  | { kind: 'day'; onDate: string }
  /** Without `products`, in every bar that holds it. */
  | { kind: 'swap'; from: string; to: string; by: (typeof SWAP_BY)[number]; products?: string[] | null }
  /** Null frees it. */
  | { kind: 'lot'; lot: string; quarantine: string | null }
  | { kind: 'limit'; limit: Limit }
  | { kind: 'market'; product: string; market: Market; firstPlacedOn?: string | null };

/** How something stands in one market; null figures where nothing binds. */
export interface Stand {
  verdict: Verdict;
  /** Least headroom over the binding limits, percent. */
  headroomPct: number | null;
  /** The limit with the least headroom. */
  boundBy: string | null;
  declares: string[];
  listAdded: string;
  listFormed: string;
}

export const EFFECT_ON = ['bar', 'version', 'batch', 'issued'] as const;

/** Bars that a row speaks of. */
export interface Hands {
  curing: number;
  inStock: number;
  sold: number;
  /** How many buyers are known by name. */
  buyers: number;
}

/** Something that may be touched: what it is made of and where it is sold. */
export interface Subject {
  what: (typeof EFFECT_ON)[number];
  id: string;
  /** The bar it is of, and what to call it. */
  product: string;
  name: string;
  markets: readonly Market[];
  firstPlacedOn: Partial<Record<Market, string>>;
  placedOn?: Partial<Record<Market, string>>;
  /** Of an issued label: the list that stands on it. */
  school?: 'added' | 'formed';
  hands: Hands;
}

export interface Effect {
  what: Subject['what'];
  id: string;
  product: string;
  name: string;
  market: Market;
  /** Null where it does not reckon, or was not sold there. */
  before: Stand | null;
  after: Stand | null;
  worse: boolean;
  hands: Hands;
}
