/** Sweeps over many products on worker threads that stay warm, with progress and a way to stop. */
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { SweepRow } from '../core/sweep';
import type { FromWorker, StoredProduct, SweepSetting, ToWorker } from './sweep-messages';

/** Products sent to a thread at once: large enough that sending is cheap, small enough for steady progress. */
const CHUNK = 250;
/** Chunks a thread holds at a time, so that it never waits for the next one. */
const AHEAD = 2;
/** Where `scripts/workers.mjs` puts the bundled thread, seen from the folder the application runs in. */
const WORKER_FILE = 'dist/workers/sweep-worker.mjs';

export interface SweepOptions {
  /** Called after every chunk with how many products are done. */
  onProgress?: (done: number, total: number) => void;
  /** Stops the sweep; its promise then rejects with the signal's reason. */
  signal?: AbortSignal;
}

export class SweepPool {
  private readonly workers: Worker[];
  private sweeps = 0;
  private last: Promise<unknown> = Promise.resolve();

  constructor(threads: number) {
    this.workers = Array.from({ length: threads }, () => new Worker(resolve(WORKER_FILE)));
    for (const worker of this.workers) worker.setMaxListeners(0);
  }

  /**
   * Sweeps all products; the rows come in the products' order. Sweeps run one after the other. Rejects when
   * stopped or when a thread fails.
   */
  sweep(
    products: readonly StoredProduct[],
    setting: SweepSetting,
    options: SweepOptions = {},
  ): Promise<SweepRow[]> {
    const run = this.last.catch(() => undefined).then(() => this.run(products, setting, options));
    this.last = run;
    return run;
  }

  /** Ends the threads. */
  async close(): Promise<void> {
    await Promise.all(this.workers.map((worker) => worker.terminate()));
  }

  private run(
    products: readonly StoredProduct[],
    setting: SweepSetting,
    { onProgress, signal }: SweepOptions,
  ): Promise<SweepRow[]> {
    signal?.throwIfAborted();
    const sweep = ++this.sweeps;
    const count = Math.ceil(products.length / CHUNK);
    const answers = new Array<SweepRow[]>(count);
    const settingText = JSON.stringify(setting);
    let next = 0;
    let done = 0;
    const send = (worker: Worker, message: ToWorker) => worker.postMessage(message);
    const sendNext = (worker: Worker) => {
      if (next >= count || signal?.aborted) return;
      const chunk = next++;
      send(worker, { sweep, chunk, products: products.slice(chunk * CHUNK, (chunk + 1) * CHUNK) });
    };
    return new Promise<SweepRow[]>((finish, reject) => {
      const listeners = this.workers.map((worker) => {
        const onMessage = (message: FromWorker) => {
          if (message.sweep !== sweep) return;
          const rows = JSON.parse(message.rows) as SweepRow[];
          answers[message.chunk] = rows;
          done += rows.length;
          onProgress?.(done, products.length);
          if (done === products.length) settle(() => finish(answers.flat()));
          else sendNext(worker);
        };
        const onError = (error: Error) => settle(() => reject(error));
        worker.on('message', onMessage).on('error', onError);
        return () => worker.off('message', onMessage).off('error', onError);
      });
      const onAbort = () => settle(() => reject(signal!.reason as Error));
      signal?.addEventListener('abort', onAbort, { once: true });
      const settle = (how: () => void) => {
        for (const remove of listeners) remove();
        signal?.removeEventListener('abort', onAbort);
        how();
      };
      if (count === 0) settle(() => finish([]));
      for (const worker of this.workers) {
        send(worker, { setting: settingText });
        for (let i = 0; i < AHEAD; i++) sendNext(worker);
      }
    });
  }
}
