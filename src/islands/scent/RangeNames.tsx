import { useState } from 'react';
import type { BarNames, RangeNames as Answer } from '../../core/records/scent';
import { address, send, type Fault } from '../../ui/api';
import { lookAtChange } from '../../ui/look-at-change';
import { Faults } from '../../ui/Faults';
import { Select } from '../../ui/Select';
import { dayInWords, many, percent } from '../../ui/words';

type Point = Answer['points'][number];

/** Asks what a swap touches, and goes where that is shown. */
const lookAt = ({ from, to }: Point['swaps'][number]) =>
  lookAtChange({ kind: 'swap', from: from.id, to: to.id, by: 'mass' });

/** What becomes of one bar: names off, names that come, how much of its scent is another. */
function BarLine({ bar, off, on, pct }: { bar: string; off: string[]; on: string[]; pct: number }) {
  return (
    <li>
      {bar}: {off.length > 0 ? `without ${off.join(', ')}` : 'no name fewer'}
      {on.length > 0 && <span className="text-madder">; {on.join(', ')} come</span>}
      <span className="text-soft">; {percent(pct)} of its scent is another</span>
    </li>
  );
}

function PointRow({
  point,
  all,
  onFaults,
}: {
  point: Point;
  all: number;
  onFaults: (faults: Fault[]) => void;
}) {
  const of = (rows: readonly BarNames[], bar: string) => rows.find((one) => one.bar === bar)?.names ?? [];
  return (
    <li className="border-t border-hair py-2">
      <h3 className="font-medium">
        {many(point.swaps.length, 'swap')}: {point.names} of {all} names left
      </h3>
      <ul className="my-1 grid gap-1">
        {point.swaps.map((swap) => (
          <li key={swap.from.id} className="flex flex-wrap items-center gap-x-3">
            <span>
              {swap.to.name} instead of {swap.from.name}
            </span>
            <button
              type="button"
              className="action"
              aria-label={`What would ${swap.to.name} instead of ${swap.from.name} touch?`}
              onClick={() => void lookAt(swap).then(onFaults)}
            >
              What would it touch?
            </button>
            {swap.blends.map(({ id, name }) => (
              <span key={id} className="text-soft">
                also within the blend{' '}
                <a className="text-ultra underline" href={`/scent?blend=${encodeURIComponent(id)}`}>
                  {name}
                </a>
                : change it there
              </span>
            ))}
          </li>
        ))}
      </ul>
      <details>
        <summary>Bar by bar</summary>
        <ul className="leading-snug">
          {point.moved.map(({ bar, pct }) => (
            <BarLine key={bar} bar={bar} off={of(point.off, bar)} on={of(point.on, bar)} pct={pct} />
          ))}
        </ul>
      </details>
    </li>
  );
}

function Points({ answer, onFaults }: { answer: Answer; onFaults: (faults: Fault[]) => void }) {
  const { names, points, unknown, isCutShort } = answer;
  return (
    <div role="status">
      {points.length === 0 && (
        <p>
          {names === 0
            ? 'No label has to name anything of its scent.'
            : `${many(names, 'name')} on all labels. No swap among the scents of the cupboard takes one off without a bar standing worse.`}
        </p>
      )}
      <ol>
        {points.map((point) => (
          <PointRow key={point.swaps.length} point={point} all={names} onFaults={onFaults} />
        ))}
      </ol>
      {unknown.length > 0 && (
        <p className="text-soft">Not tried, for it is not known what they hold: {unknown.join(', ')}.</p>
      )}
      {isCutShort && (
        <p className="text-soft">Not all was tried in the time there is; there may be better ones.</p>
      )}
    </div>
  );
}

/** Which few swaps of scents take most names off the labels of all bars, today or on the day a list grows. */
export function RangeNames({ today, days }: { today: string; days: readonly string[] }) {
  const [day, setDay] = useState('');
  const [moved, setMoved] = useState<'50' | '100'>('50');
  const [busy, setBusy] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const find = async () => {
    setBusy(true);
    setFaults([]);
    const body = { onDate: day || today, mostMovedPct: Number(moved) };
    const told = await send<Answer>('POST', address('range', 'names'), body);
    setBusy(false);
    setAnswer(told.ok ? told.body : null);
    if (!told.ok) setFaults(told.faults);
  };
  const reset = () => setAnswer(null);
  return (
    <section aria-label="Fewer names on all labels" className="sheet mt-5">
      <h2 className="text-lg">Fewer names on all labels</h2>
      <p className="text-soft">
        Which scents of the cupboard, gram for gram in the place of others wherever those stand, take most
        names off? No bar stands worse for it in any market. With very many scents a better set may be missed.
      </p>
      <div className="flex flex-wrap items-end gap-4">
        {days.length > 0 && (
          <Select
            label="As labels read on"
            value={day}
            options={[['', 'today'], ...days.map((one) => [one, dayInWords(one)] as const)]}
            onChange={(next) => {
              setDay(next);
              reset();
            }}
          />
        )}
        <Select
          label="Of a bar’s scent may be another"
          value={moved}
          options={[
            ['50', 'half at most'],
            ['100', 'all of it'],
          ]}
          onChange={(next) => {
            setMoved(next);
            reset();
          }}
        />
        <button type="button" className="action" disabled={busy} onClick={() => void find()}>
          Which few swaps?
        </button>
      </div>
      {busy && <p role="status">Trying swaps in every bar…</p>}
      <Faults faults={faults} />
      {answer && <Points answer={answer} onFaults={setFaults} />}
    </section>
  );
}
