import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { OUTCOMES } from '../../core/batch/types';
import { CRUMBLED, CUT_CHECK, TOO_SOFT, type CutWindow } from '../../core/curing/window';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

type Judged = 'good' | 'soft' | 'crumbled';
const JUDGED: readonly (readonly [Judged, string, (typeof OUTCOMES)[number], string | null])[] = [
  ['good', 'It cut well', 'good', null],
  ['soft', 'It was still too soft', 'doubtful', TOO_SOFT],
  ['crumbled', 'It crumbled', 'bad', CRUMBLED],
];

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
  const numbers = [bars, seconds, trimmings].map(readNumberOrNull);
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
  const putOff = () => write('checked', { check: CUT_CHECK, outcome: 'doubtful', value: TOO_SOFT });
  return (
    <section id="cut" aria-label="Cut" className="sheet grid gap-2">
      <h2 className="text-lg">Cut</h2>
      {window && <Window window={window} />}
      <div className="grid grid-cols-3 gap-2">
        <TextField label="Bars" value={bars} onChange={setBars} isNumber />
        <TextField label="Of them seconds" value={seconds} onChange={setSeconds} isNumber />
        <TextField label="Trimmings, g" value={trimmings} onChange={setTrimmings} isNumber />
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
        <button type="button" className="action" onClick={putOff}>
          Tried, too soft: put it off
        </button>
      </div>
    </section>
  );
}
