/** What is left of a price, by where a bar is sold: kept for the house, the price for each bar. */
import { useEffect, useState } from 'react';
import { Plus, Trash2 } from 'lucide-react';
import {
  halvedLimit,
  PRICE_DOUBT,
  priced,
  whatIfs,
  type Channel,
  type ChannelLeft,
  type Priced,
} from '../../core/making/price';
import { oneMore, type OneMore } from '../../core/making/one-more';
import type { Cost } from '../../core/making/cost';
import type { Interval } from '../../core/curing/cure-types';
import { readNumberOrNull } from '../../core/quantities/number';
import type { PricingData, PricingOfBar } from '../../core/records/pricing';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { grams, money, percent } from '../../ui/words';
import { useTable } from './context';

const STALE = {
  path: '',
  message: 'Another window changed this meanwhile; that is shown. Do yours again.',
};

/** What is typed rests so long before it is kept. */
const REST_MS = 600;

/** What is on file, changed at once on the screen and kept when the hands rest. */
function usePricing(bar: string) {
  const [data, setData] = useState<PricingData | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [waiting, setWaiting] = useState<PricingOfBar | null>(null);
  const [isSending, setSending] = useState(false);
  /** Counts what came from elsewhere, so that fields show that. */
  const [from, setFrom] = useState(0);
  const path = address('products', bar, 'price');
  useEffect(() => {
    void send<PricingData>('GET', path).then((answer) => {
      if (answer.ok) setData(answer.body);
      else setFaults(answer.faults);
    });
  }, [path]);
  const revision = data?.revision ?? 0;
  useEffect(() => {
    // One at a time: the next goes out from the revision that this one makes.
    if (!waiting || isSending) return;
    const timer = setTimeout(() => {
      setSending(true);
      void send<PricingData>('PUT', path, { revision, ...waiting }).then((answer) => {
        setSending(false);
        // What was typed meanwhile stays, and is kept next.
        setWaiting((now) => (now === waiting ? null : now));
        if (!answer.ok) return setFaults(answer.faults);
        const isStale = answer.status === 409;
        setFaults(isStale ? [STALE] : []);
        if (isStale) setFrom((count) => count + 1);
        setData((now) => (isStale || !now ? answer.body : { ...answer.body, pricing: now.pricing }));
      });
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [waiting, isSending, path, revision]);
  const put = (change: Partial<PricingOfBar>) => {
    if (!data) return;
    const pricing = { ...data.pricing, ...change };
    setData({ ...data, pricing });
    setWaiting(pricing);
  };
  return { data, faults, from, put };
}

function Figure({
  label,
  value,
  most,
  onChange,
}: {
  label: string;
  value: number | null;
  most: number;
  onChange: (value: number | null) => void;
}) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const read = readNumberOrNull(text);
  const isWrong = read !== null && !(read >= 0 && read <= most);
  return (
    <label>
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-20 tabular-nums"
        inputMode="decimal"
        aria-invalid={isWrong}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          const typed = readNumberOrNull(event.target.value);
          if (typed === null || (typed >= 0 && typed <= most)) onChange(typed);
        }}
      />
      {isWrong && <span role="alert"> 0 to {most}</span>}
    </label>
  );
}

function ChannelRow({
  channel,
  onChange,
  onRemove,
}: {
  channel: Channel;
  onChange: (channel: Channel) => void;
  onRemove: () => void;
}) {
  const set = (change: Partial<Channel>) => onChange({ ...channel, ...change });
  return (
    <li className="flex flex-wrap items-end gap-x-3 gap-y-1 border-b border-hair py-1">
      <label>
        <span className="eyebrow block">Where</span>
        <input
          className="field w-32"
          defaultValue={channel.name}
          maxLength={80}
          onChange={(event) => event.target.value.trim() !== '' && set({ name: event.target.value })}
        />
      </label>
      <Figure
        label="fees, %"
        value={channel.feePct}
        most={100}
        onChange={(feePct) => set({ feePct: feePct ?? 0 })}
      />
      <Figure
        label="fees, a bar"
        value={channel.feeEach}
        most={1e5}
        onChange={(feeEach) => set({ feeEach: feeEach ?? 0 })}
      />
      <Figure
        label="tax, %"
        value={channel.taxPct}
        most={100}
        onChange={(taxPct) => set({ taxPct: taxPct ?? 0 })}
      />
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="accent-ultra"
          checked={channel.isTaxIn}
          onChange={() => set({ isTaxIn: !channel.isTaxIn })}
        />
        in the price
      </label>
      <button
        type="button"
        className="action py-0"
        aria-label={`Take ${channel.name} out`}
        onClick={onRemove}
      >
        <Trash2 size={15} aria-hidden="true" />
      </button>
    </li>
  );
}

function Left({ one, currency }: { one: ChannelLeft; currency: string }) {
  const range = ({ low, likely, high }: Interval) =>
    `${money(likely, currency)} (${money(low, currency)} to ${money(high, currency)})`;
  return (
    <li className={one.isBelowCost ? 'border-l-4 border-madder bg-wash px-2' : 'px-2'}>
      <span className="font-medium">{one.channel.name}</span>: the buyer pays {money(one.paid, currency)}; tax{' '}
      {money(one.tax, currency)}, fees {money(one.fees, currency)}. Left of a bar: {range(one.left)}
      {one.perHour && <>; of an hour: {range(one.perHour)}</>}.
      {one.isBelowCost && <strong> Below what a bar costs.</strong>}
    </li>
  );
}

/** One bar more, by what each weighs and how wide it is cut: another net weight, so another label. */
function moreWords({ bars, nowG, thenG, cut }: OneMore): string {
  const width =
    cut && `, ${cut.thenMm.toFixed(1)} mm wide instead of ${cut.nowMm.toFixed(1)} from ${cut.mould}`;
  return `One bar more from a batch, ${bars} of ${grams(thenG)} instead of ${grams(nowG)}${width ?? ''}`;
}

function Told({ found, cost, data }: { found: Priced; cost: Cost; data: PricingData }) {
  const table = useTable();
  const { currency } = table.data;
  const dear = cost.lines.reduce<{ name: string; cost: number } | null>(
    (most, line) =>
      line.line !== null && line.cost !== null && line.cost > (most?.cost ?? 0)
        ? { name: table.materialName(line.material), cost: line.cost }
        : most,
    null,
  );
  const bars = table.formula.bars ?? 0;
  const isHot = table.formula.process === 'hot';
  const { price, ...pricing } = data.pricing;
  const input = {
    price: price ?? 0,
    pricing: { ...pricing, prices: {} },
    cost,
    bars,
    hours: data.hours,
    doubt: data.doubt.share,
    isHot,
  };
  const namesOf = (ids: readonly string[]) =>
    table.formula.lines
      .filter(({ id }) => ids.includes(id))
      .map(({ material }) => table.materialName(material))
      .join(', ');
  const tight = halvedLimit(table.assessment.limits, cost.lines);
  const tighter = tight && {
    saved: tight.saved,
    says: `Half of the limit that is closest, with ${percent(tight.lessPct)} less of ${namesOf(tight.lines)}`,
  };
  const more = oneMore(table.assessment.masses.curedG, bars, data.from);
  return (
    <>
      <p>
        A sold bar costs {money(found.cost.likely, currency)} ({money(found.cost.low, currency)} to{' '}
        {money(found.cost.high, currency)}): materials as their lots were bought, give or take{' '}
        {percent(100 * data.doubt.share)}, packing and energy.
        {data.doubt.share > PRICE_DOUBT && (
          <span className="text-soft">
            {' '}
            Of {data.doubt.of} batches {data.doubt.within} cost within a tenth of what was reckoned before.
          </span>
        )}
        {cost.unpriced.length > 0 && (
          <strong> {cost.unpriced.length} materials have no price on file: it costs more than that.</strong>
        )}
        {data.batches > 0 && (
          <span className="text-soft">
            {' '}
            From the first weighing to the pour its{' '}
            {data.batches === 1 ? 'one batch' : `${data.batches} batches`} took{' '}
            {data.hours!.likely.toFixed(1)} hours.
          </span>
        )}
      </p>
      <ul className="grid gap-1">
        {found.channels.map((one) => (
          <Left key={one.channel.id} one={one} currency={currency} />
        ))}
      </ul>
      {found.channels.length > 0 && (
        <ul className="text-soft" aria-label="What would change it">
          {whatIfs(input, dear, tighter, more && moreWords(more)).map(({ says, left }) => (
            <li key={says}>
              {says}:{' '}
              {left
                .map(
                  ({ likely }, at) =>
                    `${money(likely, currency)} left at ${found.channels[at]!.channel.name}`,
                )
                .join(', ')}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What a bar is sold for, and what it costs beside its materials. */
function Figures({ pricing, put }: { pricing: PricingOfBar; put: (change: Partial<PricingOfBar>) => void }) {
  const { price, ...costs } = pricing;
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
      <Figure label="A bar" value={price} most={1e5} onChange={(value) => put({ price: value })} />
      <Figure
        label="Label and wrap, a bar"
        value={costs.packEach}
        most={1e5}
        onChange={(value) => put({ packEach: value ?? 0 })}
      />
      <Figure
        label="Energy, a batch"
        value={costs.energyBatch}
        most={1e5}
        onChange={(value) => put({ energyBatch: value ?? 0 })}
      />
      <Figure
        label="Energy, cooked"
        value={costs.energyHot ?? null}
        most={1e5}
        onChange={(value) => put({ energyHot: value })}
      />
      <Figure
        label="Other hours, a batch"
        value={costs.otherHours}
        most={200}
        onChange={(value) => put({ otherHours: value ?? 0 })}
      />
      <Figure
        label="Not sold, %"
        value={costs.unsoldPct}
        most={99}
        onChange={(value) => put({ unsoldPct: value ?? 0 })}
      />
    </div>
  );
}

/** A price beside the cost of a bar; closed until it is asked for. */
export function PricePanel({ cost }: { cost: Cost }) {
  const { data: table, formula } = useTable();
  const { data, faults, from, put } = usePricing(table.product.id);
  if (!data) return <Faults faults={faults} />;
  const { price, channels, ...costs } = data.pricing;
  const found =
    price === null || !formula.bars
      ? null
      : priced({
          ...{ price, cost, bars: formula.bars, hours: data.hours, isHot: formula.process === 'hot' },
          doubt: data.doubt.share,
          pricing: { ...costs, channels, prices: {} },
        });
  const set = (id: string, channel: Channel) =>
    put({ channels: channels.map((one) => (one.id === id ? channel : one)) });
  return (
    <section key={from} aria-label="Price" className="mt-3 grid gap-2">
      <h3 className="text-lg">Price</h3>
      <Faults faults={faults} />
      <Figures pricing={data.pricing} put={put} />
      <ul aria-label="Where it is sold">
        {channels.map((channel) => (
          <ChannelRow
            key={channel.id}
            channel={channel}
            onChange={(next) => set(channel.id, next)}
            onRemove={() => put({ channels: channels.filter(({ id }) => id !== channel.id) })}
          />
        ))}
      </ul>
      <button
        type="button"
        className="action flex items-center gap-1 justify-self-start"
        onClick={() =>
          put({
            channels: [
              ...channels,
              {
                ...{ id: crypto.randomUUID(), name: channels.length === 0 ? 'Stall' : 'Shop' },
                ...{ feePct: 0, feeEach: 0, taxPct: 0, isTaxIn: true },
              },
            ],
          })
        }
      >
        <Plus size={15} aria-hidden="true" /> A place where it is sold
      </button>
      {price !== null && !formula.bars && <p className="text-soft">Say above how many bars a batch makes.</p>}
      {found && <Told found={found} cost={cost} data={data} />}
    </section>
  );
}
