import { useState } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { MARKETS, type Market } from '../../core/formula/types';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { DayIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { useKeeping } from '../../ui/keeping';
import { Faults } from '../../ui/Faults';
import { dayInWords, MARKET_WORDS } from '../../ui/words';
import { HELD, useTable } from './context';

/** Putting a bar away or bringing it back; one that was never sold can be deleted. */
function PutAway({ product }: { product: Product }) {
  const { busy, faults, keep } = useKeeping();
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
      <Faults faults={faults} />
    </div>
  );
}

interface Details extends Pick<Product, 'name' | 'identity' | 'note'> {
  collection: string;
  markets: Record<Market, boolean>;
  firstPlacedOn: Record<Market, string>;
}

const byMarket = <T,>(read: (market: Market) => T) =>
  Object.fromEntries(MARKETS.map((market) => [market, read(market)])) as Record<Market, T>;

function detailsOf({ name, identity, note, collection = '', markets, firstPlacedOn }: Product): Details {
  return {
    name,
    identity,
    note,
    collection,
    markets: byMarket((market) => markets.includes(market)),
    firstPlacedOn: byMarket((market) => firstPlacedOn[market] ?? ''),
  };
}

function MarketRow({ market }: { market: Market }) {
  const { register } = useFormContext<Details>();
  const isSold = useWatch<Details, `markets.${Market}`>({ name: `markets.${market}` });
  return (
    <div className="flex items-end justify-between gap-3">
      <label className="flex cursor-pointer items-center gap-1.5">
        <input type="checkbox" className="accent-ultra" {...register(`markets.${market}`)} />
        {MARKET_WORDS[market]}
      </label>
      <DayIn
        name={`firstPlacedOn.${market}`}
        label={`First sold in ${MARKET_WORDS[market]}`}
        isLabelHidden
        isDisabled={!isSold}
      />
    </div>
  );
}

/** The bar's name, what it is, its markets and since when. */
function DetailsForm() {
  const { data, flush } = useTable();
  const { product } = data;
  const [revision, setRevision] = useState(product.revision);
  const record = useRecordForm<Details, { stale: Product }>({
    defaults: detailsOf(product),
    fieldOf: (path) => (/^(name|identity|note|collection)$/.test(path) ? (path as 'name') : null),
    onStale: ({ stale }) => setRevision(stale.revision),
  });
  const { busy, setFaults, keep } = record.keeping;
  const keepIt = async ({ name, identity, note, collection, ...draft }: Details) => {
    if ((await flush()) === null) return setFaults([HELD]);
    const { netMassG, batchCode } = product;
    const markets = MARKETS.filter((market) => draft.markets[market]);
    const firstPlacedOn = Object.fromEntries(
      MARKETS.map((market) => [market, draft.firstPlacedOn[market]]).filter(([, day]) => day),
    ) as Product['firstPlacedOn'];
    const stated = { name, identity, note, collection, markets, netMassG, batchCode, firstPlacedOn };
    const body = { revision, ...stated };
    if (await keep(() => send('PUT', address('products', product.id, 'details'), body))) location.reload();
  };
  return (
    <RecordFields record={record} onKeep={keepIt} label="Details of this bar" className="grid gap-2">
      <TextIn name="name" label="Name" width="w-full" needed="Give it a name." />
      <TextIn name="identity" label="What it is, as the label says it" width="w-full" />
      <TextIn name="note" label="A note for yourselves" width="w-full" />
      <TextIn name="collection" label="Collection" width="w-full" hint="what it stands with, if anything" />
      <fieldset>
        <legend className="eyebrow">Markets, and since when it is sold there</legend>
        {MARKETS.map((market) => (
          <MarketRow key={market} market={market} />
        ))}
      </fieldset>
      <p className="eyebrow">Not sold yet counts as first sold on the day looked at.</p>
      <div>
        <button type="submit" className="action" disabled={busy}>
          Keep these details
        </button>
      </div>
    </RecordFields>
  );
}

function Variation() {
  const { data, flush } = useTable();
  const { product } = data;
  const record = useRecordForm<{ name: string }>({ defaults: { name: `${product.name}, another` } });
  const { busy, setFaults, keep } = record.keeping;
  const copy = async ({ name }: { name: string }) => {
    if ((await flush()) === null) return setFaults([HELD]);
    const url = address('products', product.id, 'duplicate');
    const made = await keep((key) => send<Product>('POST', url, { name }, key));
    if (made) location.assign(`/bars/${made.id}`);
  };
  return (
    <RecordFields
      record={record}
      onKeep={copy}
      label="A variation"
      className="mt-2 flex flex-wrap items-end gap-3 border-t border-line pt-2"
    >
      <TextIn name="name" label="A variation named" width="w-56" />
      <button type="submit" className="action" disabled={busy}>
        Start a variation
      </button>
    </RecordFields>
  );
}

/** The bar's details; starting a variation of it; putting it away. */
export function BarPanel() {
  const { product } = useTable().data;
  return (
    <section aria-label="This bar" className="py-2">
      <DetailsForm />
      <Variation />
      <p className="mt-2 border-t border-line pt-2">
        <a className="action" href={address('products', product.id, 'archive')} download>
          Hand this bar over as a file
        </a>{' '}
        <span className="text-soft">with the materials and papers it needs</span>
      </p>
      <PutAway product={product} />
    </section>
  );
}
