/** How a batch stands, in words. */
import type { BatchState, MOVED_HOW } from '../../core/batch/types';
import type { BatchSummary } from '../../core/records/batch';

const STATE_WORDS: Record<BatchState, string> = {
  pouring: 'Being poured',
  poured: 'Poured, to be cut',
  cut: 'Cut',
  curing: 'Curing',
  released: 'Released',
  soldOut: 'Sold out',
  discarded: 'Discarded',
  stopped: 'Given up',
};

export function stateWords({ state, isQuarantined }: Pick<BatchSummary, 'state' | 'isQuarantined'>): string {
  return isQuarantined ? `${STATE_WORDS[state]}, in quarantine` : STATE_WORDS[state];
}

/** How bars went, in words. */
export const MOVED_WORDS: Record<(typeof MOVED_HOW)[number], string> = {
  sale: 'sold',
  sample: 'given as samples',
  loss: 'lost',
  own: 'kept',
};
