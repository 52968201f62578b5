/** What of a batch its label answers for, small enough to be kept beside it: as weighed, released and gone. */
import type { Formula, Market } from '../formula/types';
import { placedDays } from '../curing/batch-cure';
import { batchFormula } from './request';
import type { Batch } from './types';

export interface WeighedBatch {
  formula: Formula;
  version: number;
  /** The day it was last released for a market. */
  releasedOn: Partial<Record<Market, string>>;
  sold: number;
  /** Those that are known by name, each once. */
  buyers: string[];
}

/**
 * Null before it is poured: nothing is known to be left out yet. Days are those of the house's zone.
 *
 * @example
 * const weighed = weighedOf(foldBatch(events), 'Europe/Berlin');
 * if (weighed) assess({ ...request, formula: weighed.formula }, snapshot); // the verdict on what was weighed
 */
export function weighedOf(batch: Batch, zone: string): WeighedBatch | null {
  if (!batch.poured) return null;
  const sales = batch.moved.filter(({ how }) => how === 'sale');
  return {
    formula: batchFormula(batch),
    version: batch.version,
    releasedOn: placedDays(batch, zone),
    sold: sales.reduce((sum, { bars }) => sum + bars, 0),
    buyers: [...new Set(sales.flatMap(({ to }) => to ?? []))],
  };
}
