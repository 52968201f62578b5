import { useEffect, useState } from 'react';
import type { RackData } from '../core/records/rack';
import { address, send } from './api';

const PRESSING = new Set(['closing', 'late', 'missed']);
const REFRESH_MS = 120_000;

/** How many things on the rack cannot wait, beside its name in the header; nothing where none does. */
export function RackBadge() {
  const [count, setCount] = useState(0);
  useEffect(() => {
    const look = async () => {
      const answer = await send<RackData>('GET', address('rack'));
      if (!answer.ok) return;
      const tasks = answer.body.batches.flatMap((batch) => batch.tasks);
      setCount(tasks.filter(({ urgency }) => PRESSING.has(urgency)).length);
    };
    void look();
    const timer = setInterval(() => void look(), REFRESH_MS);
    return () => clearInterval(timer);
  }, []);
  if (count === 0) return null;
  return (
    <span className="rack-badge" title={`${count} on the rack cannot wait`}>
      <span aria-hidden="true">{count}</span>
      <span className="sr-only">, {count} cannot wait</span>
    </span>
  );
}
