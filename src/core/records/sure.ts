/** How the house's own foretellings held. */
import type { Foretold, Held } from '../sure/held';

export interface SureData {
  today: string;
  held: Held[];
  currency: string;
  foretold: Foretold[];
  /** Names of the bars, by product. */
  names: Record<string, string>;
}

/** By how much the pace of sales and the cost of a bar are widened, as it was last looked at. */
export interface KeptSure {
  /** The day it was looked at, YYYY-MM-DD; null before the first look. */
  on: string | null;
  /** How many four weeks were foretold, and in how many of them what sold lay within. */
  of: number;
  within: number;
  /** How many times as wide its range is made. */
  wider: number;
  /** The same of the cost of a bar; absent before any was looked at. */
  cost?: { of: number; within: number; wider: number };
}

export const NOT_LOOKED: KeptSure = { on: null, of: 0, within: 0, wider: 1 };
