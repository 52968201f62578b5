import { massUnit, typedGramsOrNull } from '../../ui/masses';
import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { OUTCOMES } from '../../core/batch/types';
import { CRUMBLED, CUT_CHECK, feltOf, TOO_SOFT, type CutWindow, type Finger } from '../../core/curing/window';
import { CutAlarm } from './CutAlarm';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

type Judged = 'good' | 'soft' | 'crumbled';
const JUDGED: readonly (readonly [Judged, string, (typeof OUTCOMES)[number], string | null])[] = [
  ['good', 'It cut well', 'good', null],
  ['soft', 'It was still too soft', 'doubtful', TOO_SOFT],
  ['crumbled', 'It crumbled', 'bad', CRUMBLED],
];

/** What a finger tells, and how it is written down. */
const FELT: readonly (readonly [Finger, string, (typeof OUTCOMES)[number], string])[] = [
  ['dents', 'It dents: put it off', 'doubtful', TOO_SOFT],
  ['holds', 'It holds, a nail marks it', 'good', 'holds'],
  ['hard', 'It is hard', 'doubtful', 'hard'],
];
const FELT_WORDS: Record<Finger, string> = {
  dents: 'It still dented: the window opens later now.',
  holds: 'Firm: cut it now, or within the window.',
  hard: 'Hard: cut it at once, with a thin wire or a warm knife, before it crumbles.',
};

const hours = (value: number) => `${Number(value.toFixed(1))} h`;

function Window({ window }: { window: CutWindow }) {
  return (
    <ul>
      {window.portions.map(({ portion, fromHours, toHours, missedAfterHours, why }) => (
        <li key={portion}>
          {portion !== null && <strong className="font-medium">{portion}: </strong>}
          {toHours === null
            ? `from ${hours(fromHours)} after the pour, with no last hour`
            : `${hours(fromHours)} to ${hours(toHours)} after the pour; missed after ${hours(missedAfterHours ?? toHours)}`}
          <span className="block text-soft">Why: {why.join('; ')}. Advice, not a rule.</span>
        </li>
      ))}
    </ul>
  );
}

/** When to cut, putting it off, and what the cut gave and how it went, from which the next window learns. */
export function CutPanel({
  writing: { batch, write },
  window,
}: {
  writing: Writing;
  window: CutWindow | null;
}) {
  const [bars, setBars] = useState(String(batch.sheet.bars ?? ''));
  const [seconds, setSeconds] = useState('0');
  const [trimmings, setTrimmings] = useState('0');
  const [judged, setJudged] = useState<Judged>('good');
  if (batch.state !== 'poured') return null;
  const numbers = [readNumberOrNull(bars), readNumberOrNull(seconds), typedGramsOrNull(trimmings)];
  const isFit = numbers.every((value) => value !== null && value >= 0) && numbers[1]! <= numbers[0]!;
  const cut = () => {
    write('cut', {
      bars: Math.round(numbers[0]!),
      seconds: Math.round(numbers[1]!),
      trimmingsG: numbers[2]!,
    });
    const [, , outcome, value] = JUDGED.find(([id]) => id === judged)!;
    write('checked', { check: CUT_CHECK, outcome, value });
  };
  const feel = (finger: Finger) => {
    const [, , outcome, value] = FELT.find(([one]) => one === finger)!;
    write('checked', { check: CUT_CHECK, outcome, value, note: 'with a finger' });
  };
  const last = feltOf(batch).at(-1);
  return (
    <section id="cut" aria-label="Cut" className="sheet grid gap-2">
      <h2 className="text-lg">Cut</h2>
      {window && <Window window={window} />}
      {window && batch.poured && <CutAlarm pouredAt={batch.poured.at} window={window} id={batch.code} />}
      <div role="group" aria-label="With a gloved finger, in the middle" className="grid gap-1">
        <p className="eyebrow">With a gloved finger, in the middle</p>
        <div className="grid gap-2 sm:grid-cols-3">
          {FELT.map(([finger, words]) => (
            <button
              key={finger}
              type="button"
              className="action h-auto min-h-11 text-left"
              aria-pressed={last?.finger === finger}
              onClick={() => feel(finger)}
            >
              {words}
            </button>
          ))}
        </div>
        {last && <p role="status">{FELT_WORDS[last.finger]}</p>}
      </div>
      <div className="grid grid-cols-3 gap-2">
        <TextField label="Bars" value={bars} onChange={setBars} isNumber />
        <TextField label="Of them seconds" value={seconds} onChange={setSeconds} isNumber />
        <TextField label={`Trimmings, ${massUnit()}`} value={trimmings} onChange={setTrimmings} isNumber />
      </div>
      <label>
        <span className="eyebrow block">How it went</span>
        <select
          className="field w-full"
          value={judged}
          onChange={(event) => setJudged(event.target.value as Judged)}
        >
          {JUDGED.map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <p className="text-soft">Gloves: it is still caustic. Petal tops are cut on their side.</p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="action action-strong" disabled={!isFit} onClick={cut}>
          It is cut
        </button>
      </div>
    </section>
  );
}
