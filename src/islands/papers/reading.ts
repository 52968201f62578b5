/** Reading a paper in a worker, so that the tab stays quick and a reading can be given up. */
import type { PaperLine } from '../../core/paperwork/page';
import type { Lesson } from '../../core/paperwork/lessons';
import type { PaperReading } from '../../core/paperwork/read';
import type { PaperTask } from '../../workers/paper-worker';
import { PaperFault } from './fault';

/** Far longer than any paper takes. */
const LIMIT_MS = 15_000;

/** What a paper says. Throws a PaperFault where it takes too long; stops at once where it is given up. */
export function readLines(
  lines: PaperLine[],
  lessons: readonly Lesson[],
  signal: AbortSignal,
): Promise<PaperReading> {
  const worker = new Worker(new URL('../../workers/paper-worker.ts', import.meta.url), { type: 'module' });
  let limit: ReturnType<typeof setTimeout> | undefined;
  return new Promise<PaperReading>((resolve, reject) => {
    limit = setTimeout(
      () => reject(new PaperFault('This paper takes too long to read. Type in what it says.')),
      LIMIT_MS,
    );
    const fail = () => reject(new PaperFault('This paper could not be read. Type in what it says.'));
    const stop = () => reject(new PaperFault('Given up. Nothing was filed.'));
    signal.addEventListener('abort', stop, { once: true });
    worker.addEventListener('error', fail);
    worker.addEventListener('message', (event: MessageEvent<PaperReading>) => resolve(event.data));
    if (signal.aborted) stop();
    else worker.postMessage({ lines, lessons } satisfies PaperTask);
  }).finally(() => {
    clearTimeout(limit);
    worker.terminate();
  });
}
