/** What the scent desk and the server know together. */
import type { PeroxideCondition } from '../scent/storage';
import type { Formula, Market, Material, Stored } from '../formula/types';
import type { CupboardEntry } from './cupboard';

/** A bar that a blend can be tried in, with the materials it holds. */
export interface TryBar {
  id: string;
  name: string;
  formula: Formula;
  markets: Market[];
  firstPlacedOn: Partial<Record<Market, string>>;
  materials: Material[];
}

/** A single scent with the lots of it. */
export type Scent = Pick<CupboardEntry, 'material' | 'lots'>;

/** A blend as one line of the desk. */
export interface BlendRow {
  id: string;
  name: string;
  /** How many bars use it. */
  usedIn: number;
}

export interface ScentDeskData {
  blends: BlendRow[];
  /** The blend that lies on the desk at first; null where there is none. */
  opened: CupboardEntry | null;
  /** Single scents of the cupboard by name; what they hold is asked for when they go into a blend. */
  scents: { id: string; name: string }[];
  /** What the opened blend is made of. */
  known: Scent[];
  /** Every bar by name; its formula is asked for when it is chosen. */
  bars: { id: string; name: string }[];
  /** The bar to begin with. */
  first: TryBar;
  rules: Pick<Stored, 'limits' | 'declarables'>;
  rulebookEdition: string;
  peroxides: readonly PeroxideCondition[];
  onDate: string;
}

/** Id of the plain bar that is always there to try a blend in. */
export const PLAIN_BAR = '';

/** What is asked of the names of a whole range. */
export interface RangeNamesAsked {
  /** The labels' day; today where left out. */
  onDate?: string;
  /** How much of a bar's scent may be another at most, percent. */
  mostMovedPct: number;
}

interface Called {
  id: string;
  name: string;
}

/** Names of a bar's label; the bar by its name. */
export interface BarNames {
  bar: string;
  names: string[];
}

/** Few swaps that take most names off the labels of a range, with everything called by its name. */
export interface RangeNames {
  onDate: string;
  /** Names on all labels as they are. */
  names: number;
  points: {
    /** With the blends that hold what is swapped, where bars hold those. */
    swaps: { from: Called; to: Called; blends: Called[] }[];
    /** Names left. */
    names: number;
    off: BarNames[];
    on: BarNames[];
    moved: { bar: string; pct: number }[];
  }[];
  /** Scents of the cupboard of which nothing is known that they hold. */
  unknown: string[];
  isCutShort: boolean;
}
