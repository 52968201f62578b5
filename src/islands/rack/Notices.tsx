import { useEffect, useRef, useState } from 'react';
import type { Due } from './Rack';
import { URGENCY_WORDS } from './words';

const can = () => typeof Notification !== 'undefined';

/** Tells in the browser, where that is allowed, what has newly come to wait or is nearly missed. */
export function useNotices(due: readonly Due[]): void {
  const known = useRef<ReadonlySet<string> | null>(null);
  useEffect(() => {
    const keyOf = ({ batch, task }: Due) => `${batch.id} ${task.kind} ${task.portion} ${task.urgency}`;
    const before = known.current;
    known.current = new Set(due.map(keyOf));
    if (before === null || !can() || Notification.permission !== 'granted') return;
    for (const one of due.filter((each) => !before.has(keyOf(each)))) {
      const { batch, task } = one;
      new Notification(`${URGENCY_WORDS[task.urgency]}: ${batch.productName} ${batch.code}`, {
        body: task.words,
        tag: `${batch.id} ${task.kind}`,
      });
    }
  }, [due]);
}

/** Asks to be allowed to tell, and gives the calendar's address. */
export function Notices() {
  const [state, setState] = useState(() => (can() ? Notification.permission : 'denied'));
  return (
    <p className="flex flex-wrap items-center gap-x-4 pt-2">
      {state === 'default' && (
        <button
          type="button"
          className="action py-0"
          onClick={() => void Notification.requestPermission().then(setState)}
        >
          Tell me in this browser
        </button>
      )}
      {state === 'granted' && (
        <span className="text-soft">This browser tells you while a page of the rack is open.</span>
      )}
      <a className="text-ultra underline" href="/rack/calendar">
        In my calendar
      </a>
    </p>
  );
}
