import { useState } from 'react';
import type { NextWeighing } from '../../core/curing/next-weighing';
import { dayAfter } from '../../core/quantities/day';
import { address, send } from '../../ui/api';
import { dayHere } from '../../ui/habits';
import { dayInWords } from '../../ui/words';

const days = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} days`;

/** Weigh this bar, not three: asked of the house, which tries each on the cure's own curve. */
export function NextBar({ id, pouredAt }: { id: string; pouredAt: string }) {
  const [says, setSays] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const ask = async () => {
    setBusy(true);
    const answer = await send<{ next: NextWeighing | null }>('GET', address('batches', id, 'next-bar'));
    setBusy(false);
    if (!answer.ok) return setSays(answer.faults[0]!.message);
    const { next } = answer.body;
    if (!next) return setSays('No single weighing would narrow the day it is ready by now.');
    const on = dayInWords(dayAfter(dayHere(pouredAt), Math.round(next.day)));
    setSays(
      `Bar ${next.bar}, on ${on}: the day it is ready is then known to within ${days(next.thenDays)} in place of ${days(next.nowDays)}, if it weighs what is likeliest.`,
    );
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <button type="button" className="action" disabled={isBusy} onClick={() => void ask()}>
        {isBusy ? 'Trying them …' : 'Which bar next?'}
      </button>
      {says !== null && <p role="status">{says}</p>}
    </div>
  );
}
