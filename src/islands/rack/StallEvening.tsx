import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { Market } from '../../core/formula/types';
import type { StockRow } from '../../core/records/rack';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { DayField } from '../../ui/DayField';
import { TextField } from '../../ui/TextField';

type Counted = Record<string, { sold: number; samples: number }>;

const NONE = { sold: 0, samples: 0 };

function Counter({
  label,
  value,
  most,
  onChange,
}: {
  label: string;
  value: number;
  most: number;
  onChange: (value: number) => void;
}) {
  const put = (next: number) => onChange(Math.min(most, Math.max(0, next)));
  return (
    <span className="flex items-center">
      <button
        type="button"
        className="action"
        aria-label={`One less: ${label}`}
        disabled={value <= 0}
        onClick={() => put(value - 1)}
      >
        −
      </button>
      <input
        className="field w-14 text-center tabular-nums"
        inputMode="numeric"
        aria-label={label}
        value={value}
        onChange={(event) => put(Math.round(readNumberOrNull(event.target.value) ?? 0))}
      />
      <button
        type="button"
        className="action"
        aria-label={`One more: ${label}`}
        disabled={value >= most}
        onClick={() => put(value + 1)}
      >
        +
      </button>
    </span>
  );
}

function Row({
  row,
  counted,
  onChange,
}: {
  row: StockRow;
  counted: typeof NONE;
  onChange: (next: typeof NONE) => void;
}) {
  const rest = row.left - counted.sold - counted.samples;
  return (
    <tr>
      <th scope="row">
        {row.productName} <span className="font-narrow font-normal">{row.code}</span>
        <span className="block font-normal text-soft">
          {rest} of {row.left} left
        </span>
      </th>
      <td>
        <Counter
          label={`Sold of ${row.productName} ${row.code}`}
          value={counted.sold}
          most={row.left - counted.samples}
          onChange={(sold) => onChange({ ...counted, sold })}
        />
      </td>
      <td>
        <Counter
          label={`Samples of ${row.productName} ${row.code}`}
          value={counted.samples}
          most={row.left - counted.sold}
          onChange={(samples) => onChange({ ...counted, samples })}
        />
      </td>
    </tr>
  );
}

interface Evening {
  day: string;
  to: string;
  market: Market | null;
  /** Tells two evenings at one place on one day apart. */
  ref: string;
}

function rowsOf(stock: readonly StockRow[], counted: Counted, { day, to, market, ref }: Evening) {
  return stock.flatMap(({ batch, code }) => {
    const { sold, samples } = counted[batch] ?? NONE;
    const common = { day, what: code, to: to.trim() || null, ref };
    return [
      ...(sold > 0 ? [{ ...common, bars: sold, how: 'sale' as const, market }] : []),
      ...(samples > 0 ? [{ ...common, bars: samples, how: 'sample' as const, market: null }] : []),
    ];
  });
}

function useEvening(first: readonly StockRow[], today: string, markets: Market[]) {
  const [stock, setStock] = useState(first);
  const [counted, setCounted] = useState<Counted>({});
  const [evening, setEvening] = useState<Evening>(() => ({
    day: today,
    to: '',
    market: markets[0] ?? null,
    ref: crypto.randomUUID().slice(0, 8),
  }));
  const [faults, setFaults] = useState<Fault[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const rows = rowsOf(stock, counted, evening);
  const write = async () => {
    const body = { rows, by: localStorage.getItem('proportia.by') };
    const answer = await send<{ bars: number }>('POST', address('sales'), body);
    if (!answer.ok) return setFaults(answer.faults);
    setFaults([]);
    setSaid(`${answer.body.bars} bars written down.`);
    setStock((old) =>
      old.map((row) => {
        const { sold, samples } = counted[row.batch] ?? NONE;
        return { ...row, left: row.left - sold - samples };
      }),
    );
    setCounted({});
    setEvening((old) => ({ ...old, ref: crypto.randomUUID().slice(0, 8) }));
  };
  return { stock, counted, setCounted, evening, setEvening, faults, said, rows, write };
}

/** A market stall's evening: count what went, bar by bar, and write it down at once. */
export function StallEvening({
  stock: first,
  today,
  markets,
}: {
  stock: readonly StockRow[];
  today: string;
  markets: Market[];
}) {
  const { stock, counted, setCounted, evening, setEvening, faults, said, rows, write } = useEvening(
    first,
    today,
    markets,
  );
  const bars = rows.reduce((sum, row) => sum + row.bars, 0);
  if (first.length === 0)
    return (
      <p className="sheet text-soft">
        Nothing is released yet. What is released on the rack can be sold from here.
      </p>
    );
  return (
    <section aria-label="The stall’s evening" className="sheet grid content-start gap-2">
      <h2 className="text-lg">The stall’s evening</h2>
      <div className="grid gap-2 sm:grid-cols-3">
        <DayField label="Sold on" value={evening.day} onChange={(day) => setEvening({ ...evening, day })} />
        <TextField label="Where" value={evening.to} onChange={(to) => setEvening({ ...evening, to })} />
        <label>
          <span className="eyebrow block">Market</span>
          <select
            className="field w-full"
            value={evening.market ?? ''}
            onChange={(event) => setEvening({ ...evening, market: event.target.value as Market })}
          >
            {markets.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      </div>
      <table className="plain-table" aria-label="What went">
        <thead>
          <tr>
            <th scope="col">Bar</th>
            <th scope="col">Sold</th>
            <th scope="col">Samples</th>
          </tr>
        </thead>
        <tbody>
          {stock
            .filter(({ left }) => left > 0)
            .map((row) => (
              <Row
                key={row.batch}
                row={row}
                counted={counted[row.batch] ?? NONE}
                onChange={(next) => setCounted({ ...counted, [row.batch]: next })}
              />
            ))}
        </tbody>
      </table>
      <Faults faults={faults} />
      <button
        type="button"
        className="action action-strong justify-self-start"
        disabled={bars === 0}
        onClick={() => void write()}
      >
        Write {bars} bars down
      </button>
      {said && <p role="status">{said}</p>}
    </section>
  );
}
