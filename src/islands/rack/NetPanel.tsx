import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { CureData } from '../../core/records/rack';
import type { NetWeight, UnderPlanned } from '../../core/curing/net';
import { grams, MARKET_WORDS } from '../../ui/words';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

const range = ({ low, high }: UnderPlanned) =>
  low === high ? String(low) : `${Math.floor(low)} to ${Math.ceil(high)}`;

function More({ net }: { net: NetWeight }) {
  if (!net.under || net.more.length === 0) return null;
  const said = net.more.map(({ bars, under }) => `with ${bars} more weighed, ${range(under)}`);
  return <p className="text-soft">If the others are like these: {said.join('; ')}.</p>;
}

/** Bars that are seconds after all: too light, spotted, warped. */
export function SortPanel({ writing: { batch, write } }: { writing: Writing }) {
  const [bars, setBars] = useState('1');
  const [reason, setReason] = useState('');
  const count = readNumberOrNull(bars);
  const most = Math.min(batch.bars.good - batch.bars.released, batch.bars.left);
  if (!batch.cut || most <= 0) return null;
  return (
    <details className="sheet">
      <summary className="cursor-pointer text-ultra">Sort out seconds</summary>
      <div className="grid grid-cols-[6rem_minmax(0,1fr)] gap-2">
        <TextField label="Bars" value={bars} onChange={setBars} isNumber />
        <TextField label="Why they are seconds" value={reason} onChange={setReason} />
      </div>
      <button
        type="button"
        className="action mt-1"
        disabled={count === null || count < 1 || count > most || reason.trim() === ''}
        onClick={() => {
          write('sorted', { bars: Math.round(count!), reason: reason.trim() });
          setReason('');
        }}
      >
        They are seconds
      </button>
      <p className="text-soft">
        Up to {most} that are not released. Seconds are counted out of the bars for sale; below they can be
        made a material.
      </p>
    </details>
  );
}

/** The lightest bar counts: what may be declared where, and what the unweighed bars are likely to be. */
export function NetPanel({ data }: { data: CureData }) {
  const [first] = data.net;
  if (!first && data.detail.batch.barWeighings.length > 0)
    return (
      <section aria-label="Net weight" className="sheet">
        <h2 className="text-lg">Net weight</h2>
        <p>
          No bar is known by its settled weight yet: what a fresh bar weighs says nothing of what it will.
          Weigh cured bars, or the same bar three times over a week.
        </p>
      </section>
    );
  if (!first) return null;
  const { net } = first;
  return (
    <section aria-label="Net weight" className="sheet grid gap-1">
      <h2 className="text-lg">Net weight</h2>
      <p>
        Lightest {grams(net.lightestG)}, heaviest {grams(net.heaviestG)}
        {net.spreadG !== null && `, spread ${grams(net.spreadG)}`}
        {data.settledBy === 'curve' && ', as their curves settle (low ends)'}.
      </p>
      <ul>
        {data.net.map(({ market, net: { text } }) => (
          <li key={market}>
            {MARKET_WORDS[market]}: at most <strong>{text}</strong>
          </li>
        ))}
      </ul>
      {net.under ? (
        <p>
          Of the bars not weighed, {net.under.likely.toFixed(1)} are likely under {grams(net.plannedG)} (80 %:{' '}
          {range(net.under)}
          ). An estimate from the spread of those weighed.
        </p>
      ) : (
        <p className="text-soft">Weigh at least two bars for an estimate of the others.</p>
      )}
      <More net={net} />
      {net.below.length > 0 && (
        <div className="border-l-4 border-madder bg-wash px-3">
          <p className="font-medium">
            {net.below.length} of those weighed {net.below.length === 1 ? 'lies' : 'lie'} under{' '}
            {grams(net.plannedG)}, the lowest by {grams(Math.max(...net.below.map(({ shortG }) => shortG)))}.
          </p>
          {net.waysOut.map((words) => (
            <p key={words}>{words}</p>
          ))}
        </div>
      )}
    </section>
  );
}
