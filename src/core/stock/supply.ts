/** The bars of a batch that a stock counts on: ready to be sold, and on their way there. Pure. */
import type { Batch, BatchStanding } from '../batch/types';

type Counted = Pick<BatchStanding, 'state' | 'isQuarantined' | 'bars' | 'cut' | 'sheet'>;

/** Released bars that are still here; of a batch that was released in part, no others. */
export function readyBars({ state, isQuarantined, bars }: Counted): number {
  if (state !== 'released' || isQuarantined) return 0;
  return Math.max(0, Math.min(bars.left, bars.released - bars.gone));
}

/** Bars of a batch that were sold; of one that was given up, none counts. */
export function soldBars({ state, moved }: Pick<BatchStanding, 'state' | 'moved'>): number {
  if (state === 'stopped' || state === 'discarded') return 0;
  return moved.reduce((sum, { how, bars }) => sum + (how === 'sale' ? bars : 0), 0);
}

const ON_THE_WAY: readonly Batch['state'][] = ['poured', 'cut', 'curing', 'released'];

/**
 * Bars that are still to be released: what is here and not ready; before the cut, as many as the sheet makes. What went
 * already, as a sample or lost, counts nowhere.
 */
export function comingBars(batch: Counted): number {
  if (!ON_THE_WAY.includes(batch.state) || batch.isQuarantined) return 0;
  return batch.cut ? Math.max(0, batch.bars.left - readyBars(batch)) : (batch.sheet.bars ?? 0);
}
