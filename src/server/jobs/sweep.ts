/** Sweeps over many products on the server's threads. */
import type { SweepRow } from '../../core/sweep';
import type { StoredProduct } from './reckon-jobs';
import { sweepAll, type Sweep, type SweepOptions } from './sweep-pool';
import { onThread } from './threads';

/** A chunk takes some tens of milliseconds; the rest is for waiting at a busy thread. */
const LIMIT_MS = 20_000;

/** The rows of all products in their order. Rejects when stopped or when a chunk fails. */
export function sweepOnThreads(
  products: readonly StoredProduct[],
  sweep: Sweep,
  options: SweepOptions = {},
): Promise<SweepRow[]> {
  return sweepAll(
    products,
    sweep,
    (chunk, { signal }) => onThread('sweepChunk', chunk, { signal, ahead: true, limitMs: LIMIT_MS }),
    options,
  );
}
