/** Beside a server under a soak: told "held", it sweeps the heap and answers what is held, bytes. */
import { isMainThread } from 'node:worker_threads';

if (isMainThread)
  process.on('message', () => {
    globalThis.gc();
    const { rss, heapUsed, external } = process.memoryUsage();
    process.send({ rss, heap: heapUsed, external });
  });
