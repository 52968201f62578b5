import { useState } from 'react';
import { MARKETS, type Market } from '../../core/formula/types';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping, type Keeping } from '../../ui/keeping';
import { dayInWords, MARKET_WORDS } from '../../ui/words';
import { useTable } from './context';

/** Putting a bar away or bringing it back; one that was never sold can be deleted. */
function PutAway({ product, keeping: { busy, keep } }: { product: Product; keeping: Keeping }) {
  const url = address('products', product.id, 'away');
  const isAway = product.putAwayOn !== null;
  const move = async () => {
    if (await keep(() => send(isAway ? 'DELETE' : 'PUT', url))) location.reload();
  };
  const remove = async () => {
    if (!window.confirm(`Delete ${product.name} with all its versions? This cannot be undone.`)) return;
    if (await keep(() => send('DELETE', address('products', product.id)))) location.assign('/');
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3 border-t border-line pt-2">
      <button type="button" className="action" disabled={busy} onClick={() => void move()}>
        {isAway ? 'Bring it back to the range' : 'Put it away'}
      </button>
      <button type="button" className="action" disabled={busy} onClick={() => void remove()}>
        Delete it
      </button>
      <p className="w-full text-soft">
        {isAway
          ? `Put away on ${dayInWords(product.putAwayOn!)}.`
          : 'Put away, a bar is kept but out of the range.'}{' '}
        Only a bar that was never sold and has no issued label can be deleted.
      </p>
    </div>
  );
}

/** The bar's name, what it is, its markets and since when; and starting a variation of it. */
export function BarPanel() {
  const { data, flush } = useTable();
  const { product } = data;
  const [details, setDetails] = useState(product);
  const [copyName, setCopyName] = useState(`${product.name}, another`);
  const [revision, setRevision] = useState(product.revision);
  const { busy, faults, setFaults, keep } = useKeeping<{ stale: Product }>(({ stale }) =>
    setRevision(stale.revision),
  );
  const set = (part: Partial<Product>) => setDetails((all) => ({ ...all, ...part }));
  const inMarket = (market: Market, on: boolean) =>
    set({ markets: MARKETS.filter((one) => (one === market ? on : details.markets.includes(one))) });
  const keepDetails = async () => {
    if ((await flush()) === null) {
      setFaults([
        { path: '', message: 'Save the formula first: see the field or message that holds it up.' },
      ]);
      return;
    }
    const { name, identity, note, markets, netMassG, batchCode, firstPlacedOn } = details;
    const body = { revision, name, identity, note, markets, netMassG, batchCode, firstPlacedOn };
    if (await keep(() => send('PUT', address('products', product.id, 'details'), body))) location.reload();
  };
  const copy = async () => {
    if ((await flush()) === null) return;
    const url = address('products', product.id, 'duplicate');
    const made = await keep((key) => send<Product>('POST', url, { name: copyName }, key));
    if (made) location.assign(`/bars/${made.id}`);
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
        <button type="button" className="action" disabled={busy} onClick={() => void keepDetails()}>
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
        <button type="button" className="action" disabled={busy} onClick={() => void copy()}>
          Start a variation
        </button>
      </div>
      <PutAway product={product} keeping={{ busy, faults, setFaults, keep }} />
      <Faults faults={faults} />
    </section>
  );
}
