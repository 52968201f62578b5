import { Printer } from 'lucide-react';
import { useState } from 'react';
import type { Change } from '../../core/change/types';
import { MARKETS, type Market } from '../../core/formula/types';
import type { Product } from '../../core/records/product';
import type { RangeRow, TriedBar } from '../../core/records/range';
import type { ChangeEntry } from '../../core/records/watch';
import { address, send, type Fault } from '../../ui/api';
import { useAsking } from '../../ui/asking';
import { DayField } from '../../ui/DayField';
import { Faults } from '../../ui/Faults';
import { FindMaterial, type FoundMaterial } from '../../ui/FindMaterial';
import { Select } from '../../ui/Select';
import { MARKET_WORDS, VERDICT_WORDS } from '../../ui/words';
import { standWords } from '../watch/words';

/** Bars of one page that are tried or printed together. */
const MOST = 500;

interface Props {
  picked: readonly RangeRow[];
  today: string;
}

interface Tried {
  bars: TriedBar[];
  words: string;
}

function TriedRow({ row, bar }: { row: RangeRow; bar: TriedBar | undefined }) {
  if (!bar) return null;
  const { fault, markets, verdict } = bar;
  return (
    <tr>
      <th scope="row">{row.name}</th>
      <td>{row.verdict ? VERDICT_WORDS[row.verdict] : 'does not reckon'}</td>
      <td className={verdict === row.verdict ? '' : 'font-medium'}>
        {fault ?? markets.map((one) => `${one.market} ${standWords(one)}`).join(' · ')}
      </td>
    </tr>
  );
}

function TriedTable({ tried: { bars, words }, picked }: { tried: Tried; picked: readonly RangeRow[] }) {
  return (
    <table className="plain-table mt-2" aria-label={words}>
      <thead>
        <tr>
          <th scope="col">Bar</th>
          <th scope="col">Today, where it is sold</th>
          <th scope="col">{words}</th>
        </tr>
      </thead>
      <tbody>
        {picked.map((row) => (
          <TriedRow key={row.id} row={row} bar={bars.find(({ id }) => id === row.id)} />
        ))}
      </tbody>
    </table>
  );
}

/** What is tried on the picked bars, and what came of it. */
function useTrying(picked: readonly RangeRow[]) {
  const [tried, setTried] = useState<Tried | null>(null);
  const { faults, setFaults, busy, during } = useAsking();
  const attempt = async (what: { onDate?: string; markets?: Market[] }, words: string) => {
    const bars = picked.slice(0, MOST).map(({ id }) => id);
    const found = await during(() => send<TriedBar[]>('POST', address('range', 'try'), { bars, ...what }));
    if (found) setTried({ bars: found, words });
  };
  return { tried, faults, setFaults, busy, attempt, during };
}

/** Opens a market for bars that are not sold there; each is asked for its newest details first. */
async function openMarket(rows: readonly RangeRow[], market: Market): Promise<Fault[]> {
  for (const { id } of rows) {
    const known = await send<{ product: Product }>('GET', address('products', id));
    if (!known.ok) return known.faults;
    const { name, identity, note, markets, netMassG, batchCode, firstPlacedOn, revision } =
      known.body.product;
    if (markets.includes(market)) continue;
    const stated = { name, identity, note, netMassG, batchCode, firstPlacedOn };
    const body = { revision, ...stated, markets: [...markets, market] };
    const answer = await send('PUT', address('products', id, 'details'), body);
    if (!answer.ok) return answer.faults;
    if (answer.status === 409)
      return [{ path: '', message: `${name} was changed in another window just now. Try it again.` }];
  }
  return [];
}

function Swap({ picked, trying }: { picked: readonly RangeRow[]; trying: ReturnType<typeof useTrying> }) {
  const [from, setFrom] = useState<FoundMaterial | null>(null);
  const [to, setTo] = useState<FoundMaterial | null>(null);
  const go = async () => {
    const products = picked.map(({ id }) => id);
    const change: Change = {
      kind: 'swap',
      from: from!.material.id,
      to: to!.material.id,
      by: 'mass',
      products,
    };
    const made = await trying.during(() => send<ChangeEntry>('POST', address('changes'), { change }));
    if (made) location.assign(`/watch/${made.id}`);
  };
  return (
    <div className="grid gap-1">
      <FindMaterial label={from ? `Instead of ${from.material.name}` : 'Instead of'} onFound={setFrom} />
      <FindMaterial label={to ? `Take ${to.material.name}` : 'Take'} onFound={setTo} />
      <button
        type="button"
        className="action"
        disabled={!from || !to || trying.busy}
        onClick={() => void go()}
      >
        See what it touches
      </button>
    </div>
  );
}

function OtherMarket({
  picked,
  trying,
}: {
  picked: readonly RangeRow[];
  trying: ReturnType<typeof useTrying>;
}) {
  const [market, setMarket] = useState<Market>('UK');
  const open = async () => {
    const faults = await openMarket(picked, market);
    trying.setFaults(faults);
    if (faults.length === 0) location.reload();
  };
  return (
    <div className="grid content-start gap-1">
      <Select
        label="In a market"
        value={market}
        options={MARKETS.map((one) => [one, MARKET_WORDS[one]] as const)}
        onChange={setMarket}
      />
      <button
        type="button"
        className="action"
        disabled={trying.busy}
        onClick={() => void trying.attempt({ markets: [market] }, `In ${MARKET_WORDS[market]}`)}
      >
        Try it there
      </button>
      <button type="button" className="action" disabled={trying.busy} onClick={() => void open()}>
        Sell them there
      </button>
    </div>
  );
}

function OtherDay({ today, trying }: { today: string; trying: ReturnType<typeof useTrying> }) {
  const [day, setDay] = useState(today);
  return (
    <div className="grid content-start gap-1">
      <DayField label="On another day" value={day} onChange={setDay} />
      <button
        type="button"
        className="action"
        disabled={day === '' || trying.busy}
        onClick={() => void trying.attempt({ onDate: day }, `On ${day}`)}
      >
        Try that day
      </button>
    </div>
  );
}

/** One action for all bars that are picked. */
export function Actions({ picked, today }: Props) {
  const trying = useTrying(picked);
  if (picked.length === 0) return null;
  const ids = picked.map(({ id }) => encodeURIComponent(id)).join(',');
  return (
    <section aria-label="With the picked bars" className="sheet mt-2">
      <h2 className="text-lg">
        With {picked.length === 1 ? picked[0]!.name : `${picked.length} bars`}
        {picked.length > MOST && <span className="text-soft"> (the first {MOST} are tried)</span>}
      </h2>
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3">
        <OtherDay today={today} trying={trying} />
        <OtherMarket picked={picked} trying={trying} />
        <Swap picked={picked} trying={trying} />
        <a className="action mt-5" href={`/bars/sheets?bars=${ids}`}>
          <Printer size={16} aria-hidden="true" /> Formula sheets to print
        </a>
      </div>
      <Faults faults={trying.faults} />
      {trying.tried && <TriedTable tried={trying.tried} picked={picked} />}
    </section>
  );
}
