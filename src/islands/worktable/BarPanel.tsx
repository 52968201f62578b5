import { useState } from 'react';
import { MARKETS, type Market } from '../../core/formula/types';
import type { Product } from '../../server/repositories/products';
import { address, send, type Fault } from '../../ui/api';
import { MARKET_WORDS } from '../../ui/words';
import { useTable } from './context';

/** The bar's name, what it is, its markets and since when; and starting a variation of it. */
export function BarPanel() {
  const { data, flush } = useTable();
  const { product } = data;
  const [details, setDetails] = useState(product);
  const [copyName, setCopyName] = useState(`${product.name}, another`);
  const [faults, setFaults] = useState<Fault[]>([]);
  const set = (part: Partial<Product>) => setDetails((all) => ({ ...all, ...part }));
  const inMarket = (market: Market, on: boolean) =>
    set({ markets: MARKETS.filter((one) => (one === market ? on : details.markets.includes(one))) });
  const keep = async () => {
    if ((await flush()) === null) {
      setFaults([
        { path: '', message: 'Save the formula first: see the field or message that holds it up.' },
      ]);
      return;
    }
    const { name, identity, note, markets, netMassG, batchCode, firstPlacedOn } = details;
    const body = { name, identity, note, markets, netMassG, batchCode, firstPlacedOn };
    const answer = await send('PUT', address('products', product.id, 'details'), body);
    if (answer.ok) location.reload();
    else setFaults(answer.faults);
  };
  const copy = async () => {
    if ((await flush()) === null) return;
    const answer = await send<Product>('POST', address('products', product.id, 'duplicate'), {
      name: copyName,
    });
    if (answer.ok) location.assign(`/bars/${answer.body.id}`);
    else setFaults(answer.faults);
  };
  const text = (key: 'name' | 'identity' | 'note', label: string) => (
    <label className="block">
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-full"
        value={details[key]}
        onChange={(event) => set({ [key]: event.target.value })}
      />
    </label>
  );
  return (
    <section aria-label="This bar" className="grid gap-2 py-2">
      {text('name', 'Name')}
      {text('identity', 'What it is, as the label says it')}
      {text('note', 'A note for yourselves')}
      <fieldset>
        <legend className="eyebrow">Markets, and since when it is sold there</legend>
        {MARKETS.map((market) => (
          <div key={market} className="flex items-center justify-between gap-3">
            <label className="flex cursor-pointer items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-ultra"
                checked={details.markets.includes(market)}
                onChange={(event) => inMarket(market, event.target.checked)}
              />
              {MARKET_WORDS[market]}
            </label>
            <input
              type="date"
              className="field py-0"
              aria-label={`First sold in ${MARKET_WORDS[market]}`}
              disabled={!details.markets.includes(market)}
              value={details.firstPlacedOn[market] ?? ''}
              onChange={(event) => {
                const { [market]: _, ...others } = details.firstPlacedOn;
                const day = event.target.value;
                set({ firstPlacedOn: day ? { ...others, [market]: day } : others });
              }}
            />
          </div>
        ))}
      </fieldset>
      <p className="eyebrow">Not sold yet counts as first sold on the day looked at.</p>
      <div>
        <button type="button" className="action" onClick={() => void keep()}>
          Keep these details
        </button>
      </div>
      <div className="mt-2 flex flex-wrap items-end gap-3 border-t border-line pt-2">
        <label>
          <span className="eyebrow block">A variation named</span>
          <input
            className="field w-56"
            value={copyName}
            onChange={(event) => setCopyName(event.target.value)}
          />
        </label>
        <button type="button" className="action" onClick={() => void copy()}>
          Start a variation
        </button>
      </div>
      <div role="alert" className="text-madder">
        {faults.map((fault) => (
          <p key={fault.path + fault.message}>{fault.message}</p>
        ))}
      </div>
    </section>
  );
}
