/** What this device wrote down of a batch whose page was left: sent from any page, and in sight until it is on file. */
import { inHouse } from './masses';
import { useEffect, useState } from 'react';
import { foldBatch } from '../core/batch/fold';
import { keptBatches, keptEvents } from './bench-store';
import type { EventQueue } from './event-queue';
import { fetchEvents, queueOf } from './writing';

/** The batch of this page sends its own. */
const isHere = (batch: string): boolean => location.pathname.split('/').includes(encodeURIComponent(batch));

interface Left {
  id: string;
  queue: EventQueue;
}

function LeftOf({ id, queue: { known, waiting, aside, why } }: Left) {
  const count = waiting.length + aside.length;
  const batch = foldBatch([...known]);
  const href = `/${batch && !batch.poured ? 'pour' : 'rack'}/${encodeURIComponent(id)}`;
  return (
    <li>
      {count === 1 ? '1 entry' : `${count} entries`} of{' '}
      <a className="text-ultra underline" href={href}>
        {batch?.code ?? id}
      </a>
      {aside.length > 0
        ? `: ${inHouse(aside[0]!.message)} Open the batch to decide.`
        : `. ${why ?? 'Sent again soon.'}`}
    </li>
  );
}

export function Leftovers() {
  const [left, setLeft] = useState<readonly Left[]>([]);
  const [, redraw] = useState(0);
  useEffect(() => {
    let isGone = false;
    const open: EventQueue[] = [];
    void keptBatches().then(async (batches) => {
      for (const id of batches.filter((batch) => !isHere(batch))) {
        const [kept, known] = await Promise.all([keptEvents(id), fetchEvents(id)]);
        if (isGone) return;
        const queue = queueOf(id, known ?? [], () => redraw((count) => count + 1));
        open.push(queue);
        setLeft((others) => [...others, { id, queue }]);
        queue.resume(kept);
      }
    });
    return () => {
      isGone = true;
      for (const queue of open) queue.close();
    };
  }, []);
  const shown = left.filter(({ queue: { waiting, aside } }) => waiting.length + aside.length > 0);
  if (shown.length === 0) return null;
  return (
    <section
      aria-label="Not on file yet"
      className="mx-3 mt-3 sm:mx-6 border-l-4 border-ink bg-sheet px-3 py-1"
    >
      <h2 className="text-lg">Not on file yet</h2>
      <ul>
        {shown.map(({ id, queue }) => (
          <LeftOf key={id} id={id} queue={queue} />
        ))}
      </ul>
    </section>
  );
}
