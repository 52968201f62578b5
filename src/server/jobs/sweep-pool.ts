/** Sweeps over many products on threads, with progress and a way to stop. */
import type { SweepRow } from '../../core/sweep';
import type { Market } from '../../core/formula/types';
import { groupsOf } from '../../core/group';
import { rowsOf, type SharedSetting, type StoredProduct, type SweptChunk } from './reckon-jobs';

/** Products sent to a thread at once: large enough that sending is cheap, small enough for steady progress. */
const CHUNK = 250;
/** Chunks under way at a time: enough that every thread has its next one waiting. */
const LANES = 4;

export interface SweepOptions {
  /** Called after every chunk with how many products are done. */
  onProgress?: (done: number, total: number) => void;
  /** Stops the sweep; its promise then rejects with the signal's reason. */
  signal?: AbortSignal;
}

export interface Sweep {
  setting: SharedSetting;
  markets: readonly Market[];
  onDate: string;
}

/** Runs one chunk somewhere. */
export type RunChunk = (
  chunk: Sweep & { products: readonly StoredProduct[] },
  options: { signal: AbortSignal },
) => Promise<SweptChunk>;

/**
 * Sweeps all products, as many chunks at a time as `run` takes; the rows come in the products' order. Rejects
 * when stopped or when a chunk fails.
 */
export async function sweepAll(
  products: readonly StoredProduct[],
  sweep: Sweep,
  run: RunChunk,
  { onProgress, signal }: SweepOptions = {},
): Promise<SweepRow[]> {
  signal?.throwIfAborted();
  let done = 0;
  const chunks = groupsOf(products, CHUNK);
  const stop = new AbortController();
  const ended = signal ? AbortSignal.any([signal, stop.signal]) : stop.signal;
  const rows: SweepRow[][] = [];
  let next = 0;
  const lane = async () => {
    while (next < chunks.length && !ended.aborted) {
      const index = next++;
      const answered = await run({ ...sweep, products: chunks[index]! }, { signal: ended });
      rows[index] = rowsOf(answered, chunks[index]!, sweep.markets);
      done += rows[index].length;
      onProgress?.(done, products.length);
    }
  };
  try {
    await Promise.all(Array.from({ length: LANES }, lane));
    signal?.throwIfAborted();
    return rows.flat();
  } catch (error) {
    stop.abort();
    signal?.throwIfAborted();
    throw error;
  }
}
