/** Prices as the worktable and the server know them. */
import type { Interval } from '../curing/cure-types';
import type { Block } from '../making/one-more';
import type { Pricing } from '../making/price';

/** What counts for the house, with the price of one bar. */
export type PricingOfBar = Omit<Pricing, 'prices'> & { price: number | null };

export interface PricingData {
  pricing: PricingOfBar;
  revision: number;
  /** Hours from the first weighing to the pour of its batches, as the bench measured them; null before the first. */
  hours: Interval | null;
  /** Batches that were measured. */
  batches: number;
  /** How far the cost may be off, relative, and of how many of the house's batches how many came within it. */
  doubt: { share: number; of: number; within: number };
  /** What its last batch was poured into: a block that was measured, cavities of a bar each; null where neither is known. */
  from: Block | 'cavities' | null;
}
