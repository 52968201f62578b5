import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { NextData } from '../../core/records/next';
import { DayField } from '../../ui/DayField';
import { dayInWords } from '../../ui/words';
import { TextField } from '../../ui/TextField';
import type { Plans } from './NextDesk';

/** What has to be ready by a day: a market, an order, a shop's reopening. */
export function WantedForm({ data, keep }: { data: NextData; keep: (plans: Partial<Plans>) => void }) {
  const [product, setProduct] = useState(data.bars[0]?.id ?? '');
  const [name, setName] = useState('');
  const [day, setDay] = useState('');
  const [bars, setBars] = useState('');
  const count = readNumberOrNull(bars);
  const isFit = product && name.trim() && day && count !== null && count >= 1;
  const { wanted } = data;
  const add = () => {
    keep({
      wanted: [
        ...wanted,
        { id: crypto.randomUUID(), product, name: name.trim(), day, bars: Math.round(count!) },
      ],
    });
    setName('');
    setBars('');
  };
  const nameOf = (id: string) => data.bars.find((bar) => bar.id === id)?.name ?? id;
  return (
    <section aria-label="Wanted by a day" className="sheet grid gap-2">
      <h2 className="text-lg">Wanted by a day</h2>
      <ul>
        {wanted.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-3 border-b border-hair">
            {dayInWords(one.day)}: {one.bars} {nameOf(one.product)} for {one.name}
            <button
              type="button"
              className="action ml-auto py-0"
              onClick={() => keep({ wanted: wanted.filter(({ id }) => id !== one.id) })}
            >
              Take away
            </button>
          </li>
        ))}
      </ul>
      <div className="grid gap-2 sm:grid-cols-[1fr_1fr_auto_6rem_auto] sm:items-end">
        <label>
          <span className="eyebrow block">Bar</span>
          <select
            className="field w-full"
            value={product}
            onChange={(event) => setProduct(event.target.value)}
          >
            {data.bars.map((bar) => (
              <option key={bar.id} value={bar.id}>
                {bar.name}
              </option>
            ))}
          </select>
        </label>
        <TextField label="For what" value={name} onChange={setName} />
        <DayField label="By" value={day} onChange={setDay} />
        <TextField label="Bars" value={bars} onChange={setBars} isNumber />
        <button type="button" className="action" disabled={!isFit} onClick={add}>
          Add
        </button>
      </div>
    </section>
  );
}
