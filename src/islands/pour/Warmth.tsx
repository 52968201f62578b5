import { permitAlarm, ring } from '../../ui/alarm';
import { useEffect, useState } from 'react';
import type { Batch, EventFields } from '../../core/batch/types';
import type { RunStep } from '../../core/making/run-sheet-types';
import { readNumber } from '../../core/quantities/number';
import type { Habits } from '../../core/records/house';
import { address, send } from '../../ui/api';
import { degreesWords, fromDegrees, habits, inDegrees } from '../../ui/habits';
import { TEMPERATURE_WORDS } from '../../ui/batch-words';
import type { Write } from '../../ui/writing';
import benchStyles from '../../ui/bench.module.css';

type Of = EventFields['temperature']['of'];
type Scale = Habits['degrees'];

/** Chosen at this device, in place of the house's habit. */
const UNIT_KEY = 'proportia.degrees';

function usualUnit(): Scale {
  const chosen = localStorage.getItem(UNIT_KEY);
  return chosen === 'F' || chosen === 'C' ? chosen : habits().degrees;
}

function measuredIn({ id, place }: RunStep): Of {
  if (place === 'lye') return 'lye';
  if (place === 'fats') return 'fats';
  if (id.startsWith('cook')) return 'cook';
  return place === 'mould' || place === 'rest' ? 'mould' : 'batter';
}

/** How warm it should be and how warm it is, in °C or °F as the maker likes. */
export function Temperature({ step, batch, write }: { step: RunStep; batch: Batch; write: Write }) {
  const [unit, setUnit] = useState(usualUnit);
  const [text, setText] = useState('');
  const { from, to } = step.temperatureC!;
  const of = measuredIn(step);
  const said = (c: number) => degreesWords(c, { degrees: unit });
  const last = batch.temperatures.findLast((one) => one.of === of);
  const c = fromDegrees(readNumber(text), { degrees: unit });
  const isFit = Number.isFinite(c) && c >= -50 && c <= 300;
  const readIt = async () => {
    const answer = await send<{ c: number }>('GET', address('thermometer'));
    if (answer.ok) setText(inDegrees(answer.body.c, { degrees: unit }).toFixed(1));
  };
  const choose = (next: Scale) => {
    localStorage.setItem(UNIT_KEY, next);
    setUnit(next);
  };
  return (
    <section aria-label="Warmth" className="grid gap-2">
      <p className="text-2xl font-semibold">
        {said(from)} to {said(to)}
        {last && (
          <span className="block text-base font-normal">
            Last measured: {said(last.c)}
            {last.c > to ? ', still too warm' : last.c < from ? ', too cool' : ', within'}
          </span>
        )}
      </p>
      <form
        className="grid grid-cols-[1fr_auto_auto] items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isFit) return;
          write('temperature', { of, c: Number(c.toFixed(1)) });
          setText('');
        }}
      >
        <label>
          <span className="eyebrow block text-base">Warmth of {TEMPERATURE_WORDS[of]}</span>
          <input
            className={benchStyles.benchField}
            inputMode="decimal"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button
          type="button"
          className={benchStyles.benchAction}
          onClick={() => choose(unit === 'C' ? 'F' : 'C')}
        >
          °{unit}
        </button>
        <button type="submit" className={benchStyles.benchAction} disabled={!isFit}>
          Write it down
        </button>
      </form>
      <button type="button" className={benchStyles.benchAction} onClick={() => void readIt()}>
        Read the thermometer
      </button>
    </section>
  );
}

/** It rings again so often, until the clock is stopped, but not for ever. */
const RING_EVERY_MS = 8000;
const RINGS_FOR_S = 300;

/** A timer that goes on over a reload, and is heard and felt when it is time. */
export function Timer({ id, minutes }: { id: string; minutes: number }) {
  const key = `proportia.timer ${id}`;
  const [startedMs, setStarted] = useState<number | null>(() => Number(localStorage.getItem(key)) || null);
  const [nowMs, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const leftS = startedMs === null ? minutes * 60 : Math.round(minutes * 60 - (nowMs - startedMs) / 1000);
  const isDue = startedMs !== null && leftS <= 0 && leftS > -RINGS_FOR_S;
  useEffect(() => {
    if (!isDue) return;
    ring();
    const again = setInterval(ring, RING_EVERY_MS);
    return () => clearInterval(again);
  }, [isDue]);
  const clock = `${Math.floor(Math.abs(leftS) / 60)}:${String(Math.abs(leftS) % 60).padStart(2, '0')}`;
  const toggle = () => {
    permitAlarm();
    if (startedMs === null) {
      localStorage.setItem(key, String(Date.now()));
      setNow(Date.now());
      setStarted(Date.now());
    } else {
      localStorage.removeItem(key);
      setStarted(null);
    }
  };
  return (
    <section aria-label="Timer" className="flex items-center gap-4">
      <p className="text-4xl font-semibold tabular-nums" role="timer">
        {clock}
      </p>
      <p>{startedMs === null ? 'about' : leftS > 0 ? 'to go' : 'past: it is time'}</p>
      <button type="button" className={`${benchStyles.benchAction} ml-auto`} onClick={toggle}>
        {startedMs === null ? 'Start the clock' : 'Stop the clock'}
      </button>
    </section>
  );
}
