import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import { MOVED_HOW, type Batch } from '../../core/batch/types';
import type { Market } from '../../core/formula/types';
import { dayAt } from '../../ui/words';
import { MOVED_WORDS } from '../../ui/batch-words';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

type How = (typeof MOVED_HOW)[number];

/** Where the last bars went. */
function Gone({ batch }: { batch: Batch }) {
  if (batch.moved.length === 0) return null;
  return (
    <ul>
      {batch.moved.slice(-8).map((one) => (
        <li key={`${one.at} ${one.bars} ${one.to}`}>
          {dayAt(one.at)}: {one.bars} {MOVED_WORDS[one.how]}
          {one.to && `, ${one.to}`}
          {one.market && ` (${one.market})`}
        </li>
      ))}
    </ul>
  );
}

/** Bars that leave: how, how many, where and to whom. */
export function OutPanel({ writing: { batch, write }, markets }: { writing: Writing; markets: Market[] }) {
  const [bars, setBars] = useState('1');
  const [how, setHow] = useState<How>(batch.released.length > 0 ? 'sale' : 'sample');
  const [to, setTo] = useState('');
  const [market, setMarket] = useState<Market | ''>(markets[0] ?? '');
  const [despite, setDespite] = useState('');
  const count = readNumberOrNull(bars);
  if (!batch.cut || batch.bars.left <= 0) return null;
  const isElsewhere =
    how === 'sale' &&
    market !== '' &&
    batch.released.length > 0 &&
    !batch.released.some((one) => one.markets.includes(market));
  const move = () =>
    write('moved', {
      bars: Math.round(count!),
      how,
      ...(to.trim() ? { to: to.trim() } : {}),
      ...(how === 'sale' && market ? { market } : {}),
      ...(isElsewhere && despite.trim() ? { despite: despite.trim() } : {}),
    });
  return (
    <section id="out" aria-label="Bars that left" className="sheet grid gap-2">
      <h2 className="text-lg">Bars that left</h2>
      <div className="grid grid-cols-2 gap-2">
        <TextField label="Bars" value={bars} onChange={setBars} isNumber />
        <label>
          <span className="eyebrow block">How they went</span>
          <select
            className="field w-full"
            value={how}
            onChange={(event) => setHow(event.target.value as How)}
          >
            {MOVED_HOW.filter((one) => one !== 'sale' || batch.released.length > 0).map((one) => (
              <option key={one} value={one}>
                {MOVED_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
        <TextField label="Where, to whom" value={to} onChange={setTo} />
        {how === 'sale' && (
          <label>
            <span className="eyebrow block">Market</span>
            <select
              className="field w-full"
              value={market}
              onChange={(event) => setMarket(event.target.value as Market)}
            >
              {markets.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
        )}
      </div>
      {isElsewhere && (
        <TextField
          label={`It was not released for ${market}. Why is it sold there?`}
          value={despite}
          onChange={setDespite}
        />
      )}
      <button
        type="button"
        className="action justify-self-start"
        disabled={count === null || count < 1 || (isElsewhere && despite.trim() === '')}
        onClick={move}
      >
        Write it down
      </button>
      <Gone batch={batch} />
    </section>
  );
}
