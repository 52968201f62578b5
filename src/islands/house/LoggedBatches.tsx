import { useState } from 'react';
import type { TakenBatch } from '../../core/records/import';
import type { LoggedBatch } from '../../core/sheets/logged';
import { DayField } from '../../ui/DayField';
import { many } from '../../ui/words';
import type { MadeBar } from './sheet';

/** A batch of a log with what the maker says of it: when it was made, and whether it is taken in. */
interface Logged extends Omit<LoggedBatch, 'bars'> {
  key: string;
  /** As it is typed; empty where it is not known. */
  bars: string;
  isWanted: boolean;
}

type Answer = Partial<Pick<Logged, 'day' | 'bars' | 'isWanted'>>;

/** The batches of bars as they would be taken in; those whose day the sheet says are, until the maker says otherwise. */
export function useLogged(today: string) {
  const [said, setSaid] = useState<Readonly<Record<string, Answer>>>({});
  const batchesOf = (bar: MadeBar): Logged[] =>
    bar.batches.map((batch, at) => {
      const key = `${bar.name} ${at}`;
      const bars = batch.bars === null ? '' : String(batch.bars);
      return { ...batch, key, bars, isWanted: batch.day !== null && batch.weighed.length > 0, ...said[key] };
    });
  const say = (key: string, answer: Answer) =>
    setSaid((before) => ({ ...before, [key]: { ...before[key], ...answer } }));
  const wanted = (bar: MadeBar) => batchesOf(bar).filter(({ isWanted }) => isWanted);
  return {
    batchesOf,
    say,
    /** Whether one is wanted whose day is still to be said, or cannot be. */
    isOpen: (bars: readonly MadeBar[]) =>
      bars.flatMap(wanted).some(({ day, bars }) => dayFault(day, today) !== undefined || !isCount(bars)),
    takenOf: (bar: MadeBar): TakenBatch[] =>
      wanted(bar).flatMap(({ code, day, bars, weighed }) =>
        day === null ? [] : [{ code, day, bars: bars === '' ? null : Number(bars), weighed }],
      ),
    count: (bars: readonly MadeBar[]) => bars.flatMap(wanted).length,
  };
}

/** A whole number of bars, or nothing. */
const isCount = (bars: string) => /^(?:[1-9]\d{0,3})?$/.test(bars.trim());

/** What speaks against a day. */
function dayFault(day: string | null, today: string): string | undefined {
  if (day === null) return 'Say the day it was made.';
  return day > today ? 'This day is still to come.' : undefined;
}

const nameOf = ({ code }: Pick<LoggedBatch, 'code'>) =>
  code === '' ? 'A batch without a code' : `Batch ${code}`;

function OneBatch({
  batch,
  bar,
  today,
  onSay,
}: {
  batch: Logged;
  bar: string;
  today: string;
  onSay: (answer: Answer) => void;
}) {
  const { isWanted, day, bars, weighed, left } = batch;
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 py-0.5">
      <label className="flex items-baseline gap-2">
        <input
          type="checkbox"
          checked={isWanted}
          disabled={weighed.length === 0}
          onChange={() => onSay({ isWanted: !isWanted })}
        />
        {nameOf(batch)}, {many(weighed.length, 'weighing')}
      </label>
      {isWanted && (
        <>
          <span>made on</span>
          <DayField
            label={`${nameOf(batch)} of ${bar} was made on`}
            isLabelHidden
            value={day ?? ''}
            fault={dayFault(day, today)}
            onChange={(next) => onSay({ day: next === '' ? null : next })}
          />
          <label className="flex items-baseline gap-2">
            cut into
            <input
              className="field w-14"
              inputMode="numeric"
              aria-label={`Bars that ${nameOf(batch)} of ${bar} was cut into`}
              aria-invalid={!isCount(bars)}
              value={bars}
              onChange={(event) => onSay({ bars: event.target.value })}
            />
            bars
          </label>
          {bars.trim() === '' && (
            <span className="text-soft">Left empty, it stands on the rack as not cut yet.</span>
          )}
          {!isCount(bars) && <span className="text-madder">Give a whole number, or leave it empty.</span>}
        </>
      )}
      {left.length > 0 && <span className="text-soft">{left.join(' ')}</span>}
    </li>
  );
}

/** What a log says was weighed of a bar: batches to be made of it, each with its day. */
export function LoggedBatches({
  bar,
  logged: { batchesOf, say },
  today,
}: {
  bar: MadeBar;
  logged: ReturnType<typeof useLogged>;
  today: string;
}) {
  const batches = batchesOf(bar);
  if (batches.length === 0) return null;
  return (
    <section aria-label={`Batches of ${bar.name}`} className="pl-6">
      <p className="text-soft">
        Batches of it, as the sheet weighs them. Say at each on the rack what became of it since.
      </p>
      <ul>
        {batches.map((batch) => (
          <OneBatch
            key={batch.key}
            batch={batch}
            bar={bar.name}
            today={today}
            onSay={(answer) => say(batch.key, answer)}
          />
        ))}
      </ul>
    </section>
  );
}
