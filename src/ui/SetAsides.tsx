import { inHouse } from './masses';
import { useState } from 'react';
import type { BatchEvent } from '../core/batch/types';
import type { Lot } from '../core/making/cost';
import { saidOf } from './batch-words';
import { LOST_CODE, type SetAside } from './event-queue';
import type { Writing } from './writing';
import benchStyles from './bench.module.css';

/** Passed where the event says why. */
const DESPITE_CODES: readonly string[] = ['lot-short', 'lot-quarantined', 'lot-past', 'not-released'];

const materialOf = (event: BatchEvent, { batch }: Writing): string | null => {
  if (event.type === 'added') return event.material;
  if (event.type !== 'weighed' && event.type !== 'guessed') return null;
  return batch.lines.find(({ line }) => line === event.line)?.material ?? null;
};

interface OneProps {
  one: SetAside;
  writing: Writing;
  lots: readonly Lot[];
}

/** One thing that was not taken: what, why, and the ways on. */
function One({ one, writing, lots }: OneProps) {
  const { event, code, message } = one;
  const [despite, setDespite] = useState('');
  const [lot, setLot] = useState('');
  const isOfLot = code.startsWith('lot-') || code === 'unknown-lot';
  const takesReason = DESPITE_CODES.includes(code);
  const others = isOfLot
    ? lots.filter(
        ({ id, quarantine, leftG }) =>
          quarantine === null && leftG > 0 && !('lot' in event && event.lot === id),
      )
    : [];
  const again = () =>
    writing.decide(one, {
      ...event,
      ...(lot ? { lot } : {}),
      ...(takesReason && despite.trim() ? { despite: despite.trim() } : {}),
    });
  const isFit = !isOfLot || lot !== '' || despite.trim() !== '';
  return (
    <li className={`${benchStyles.benchCaution} grid gap-2`}>
      <p>
        <strong>Not on file: {saidOf(event, writing.batch)}.</strong> {inHouse(message)}
      </p>
      {takesReason && (
        <label className="block">
          <span className="eyebrow block text-base">It is in the pot all the same. Why?</span>
          <input
            className={benchStyles.benchField}
            value={despite}
            onChange={(change) => setDespite(change.target.value)}
          />
        </label>
      )}
      {others.length > 0 && (
        <label className="block">
          <span className="eyebrow block text-base">Or it came from another bottle or sack</span>
          <select
            className={benchStyles.benchField}
            value={lot}
            onChange={(change) => setLot(change.target.value)}
          >
            <option value="">the same</option>
            {others.map(({ id, code: name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="grid gap-2 sm:grid-cols-2">
        <button type="button" className={benchStyles.benchAction} disabled={!isFit} onClick={again}>
          {code === LOST_CODE ? 'Write it down again' : 'It counts: write it down'}
        </button>
        <button type="button" className={benchStyles.benchAction} onClick={() => writing.decide(one, null)}>
          It does not count: leave it out
        </button>
      </div>
    </li>
  );
}

/** Everything of this device that the application did not take, until somebody has decided; nothing where all was taken. */
export function SetAsides({
  writing,
  lots = {},
}: {
  writing: Writing;
  lots?: Readonly<Record<string, readonly Lot[]>>;
}) {
  const { aside } = writing.queue;
  if (aside.length === 0) return null;
  return (
    <section aria-label="Not on file" role="alert" className="grid gap-2">
      <ul className="grid gap-2">
        {aside.map((one) => (
          <One
            key={one.event.id}
            one={one}
            writing={writing}
            lots={lots[materialOf(one.event, writing) ?? ''] ?? []}
          />
        ))}
      </ul>
    </section>
  );
}
