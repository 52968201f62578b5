import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import { DECISIONS, MOVED_HOW } from '../../core/batch/types';
import type { Market } from '../../core/formula/types';
import type { BatchDetail } from '../../core/records/batch';
import { guarded } from '../../ui/Guarded';
import { MOVED_WORDS, stateWords } from './states';
import { useWriting, type Writing } from './writing';

const DECISION_WORDS = { release: 'Lift it', rework: 'Rework it', discard: 'Discard it' } as const;

function Text({
  label,
  value,
  onChange,
  isNumber = false,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  isNumber?: boolean;
}) {
  return (
    <label className="block">
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-full"
        inputMode={isNumber ? 'decimal' : 'text'}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

/** A quarantine waits for a written decision. */
function Decide({ writing: { batch, write } }: { writing: Writing }) {
  const [reason, setReason] = useState('');
  const open = batch.quarantines.filter(({ decision }) => decision === null);
  if (!batch.isQuarantined) return null;
  return (
    <div className="border-l-4 border-madder bg-wash px-3 py-1.5">
      <p className="font-medium">In quarantine</p>
      {open.map(({ reason: why, at }) => (
        <p key={at}>{why}</p>
      ))}
      <Text label="What is decided, and why" value={reason} onChange={setReason} />
      <div className="mt-1 flex flex-wrap gap-2">
        {DECISIONS.map((decision) => (
          <button
            key={decision}
            type="button"
            className="action"
            disabled={reason.trim() === ''}
            onClick={() => {
              write('decided', { decision, reason: reason.trim() });
              setReason('');
            }}
          >
            {DECISION_WORDS[decision]}
          </button>
        ))}
      </div>
    </div>
  );
}

function Cut({ writing: { batch, write } }: { writing: Writing }) {
  const [bars, setBars] = useState(String(batch.sheet.bars ?? ''));
  const [seconds, setSeconds] = useState('0');
  const [trimmings, setTrimmings] = useState('0');
  const numbers = [bars, seconds, trimmings].map(readNumberOrNull);
  const isFit = numbers.every((value) => value !== null && value >= 0) && numbers[1]! <= numbers[0]!;
  return (
    <div className="grid grid-cols-3 gap-2">
      <Text label="Bars" value={bars} onChange={setBars} isNumber />
      <Text label="Of them seconds" value={seconds} onChange={setSeconds} isNumber />
      <Text label="Trimmings, g" value={trimmings} onChange={setTrimmings} isNumber />
      <button
        type="button"
        className="action col-span-3 justify-self-start"
        disabled={!isFit}
        onClick={() =>
          write('cut', {
            bars: Math.round(numbers[0]!),
            seconds: Math.round(numbers[1]!),
            trimmingsG: numbers[2]!,
          })
        }
      >
        It is cut
      </button>
    </div>
  );
}

function Release({ writing: { batch, write }, markets }: { writing: Writing; markets: Market[] }) {
  const [net, setNet] = useState('');
  const most = batch.bars.good - batch.bars.released;
  const netMassG = readNumberOrNull(net);
  if (most <= 0) return null;
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <Text label="Net weight on the label, g" value={net} onChange={setNet} isNumber />
      <button
        type="button"
        className="action justify-self-start"
        disabled={batch.isQuarantined || netMassG === null || netMassG <= 0}
        onClick={() => write('released', { bars: most, netMassG: netMassG!, markets })}
      >
        Release {most} bars
      </button>
    </div>
  );
}

function Move({ writing: { batch, write } }: { writing: Writing }) {
  const [bars, setBars] = useState('1');
  const [how, setHow] = useState<(typeof MOVED_HOW)[number]>('sale');
  const [to, setTo] = useState('');
  const count = readNumberOrNull(bars);
  if (batch.bars.left <= 0) return null;
  return (
    <div className="grid grid-cols-3 items-end gap-2">
      <Text label="Bars" value={bars} onChange={setBars} isNumber />
      <label className="block">
        <span className="eyebrow block">How they went</span>
        <select
          className="field w-full"
          value={how}
          onChange={(event) => setHow(event.target.value as typeof how)}
        >
          {MOVED_HOW.map((one) => (
            <option key={one} value={one}>
              {MOVED_WORDS[one]}
            </option>
          ))}
        </select>
      </label>
      <Text label="To whom" value={to} onChange={setTo} />
      <button
        type="button"
        className="action justify-self-start"
        disabled={count === null || count < 1}
        onClick={() => write('moved', { bars: Math.round(count!), how, to: to.trim() || null })}
      >
        Write it down
      </button>
    </div>
  );
}

/** What can be written down of a batch once it is poured. */
function BatchStepsIsland({ detail, markets }: { detail: BatchDetail; markets: Market[] }) {
  const writing = useWriting(detail);
  const { batch, queue } = writing;
  const isMade = batch.cut !== null && batch.state !== 'discarded';
  return (
    <section className="sheet mt-3 grid gap-3" aria-label="What comes next">
      <h2 className="text-lg">{stateWords(batch)}</h2>
      {queue.refusal && (
        <p role="alert" className="text-madder">
          Not taken: {queue.refusal}
        </p>
      )}
      <Decide writing={writing} />
      {batch.state === 'poured' && <Cut writing={writing} />}
      {isMade && (
        <>
          <p>
            {batch.bars.good} bars, {batch.bars.released} released, {batch.bars.gone} gone, {batch.bars.left}{' '}
            here.
          </p>
          <Release writing={writing} markets={markets} />
          <Move writing={writing} />
        </>
      )}
    </section>
  );
}

export const BatchSteps = guarded('The batch', BatchStepsIsland);
