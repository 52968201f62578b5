import { useEffect, useState, type FormEvent } from 'react';
import type { Mould } from '../../core/making/size';
import { readNumberOrNull } from '../../core/quantities/number';
import type { BatchDetail, LastPour, PourPlan } from '../../core/records/batch';
import { address, makeKey, send, type Fault } from '../../ui/api';
import { guarded } from '../../ui/Guarded';
import { Faults } from '../../ui/Faults';
import { grams, VERDICT_WORDS } from '../../ui/words';

interface Props {
  bars: readonly { id: string; name: string }[];
  moulds: readonly Mould[];
}

type SizeKind = 'bars' | 'fats' | 'mould';

interface Wish {
  product: string;
  kind: SizeKind;
  size: string;
  mould: string;
  stock: string;
  by: string;
}

function bodyOf({ product, kind, size, mould, stock, by }: Wish) {
  const value = readNumberOrNull(size);
  const concentrationPct = readNumberOrNull(stock);
  const sizes = {
    bars: { bars: value === null ? undefined : Math.round(value) },
    fats: { fatsMassG: value ?? undefined },
    mould: { moulds: [{ id: mould, count: Math.round(value ?? 1) }] },
  };
  return {
    product,
    size: value === null ? {} : sizes[kind],
    lyeStock: concentrationPct === null ? null : { concentrationPct },
    by: by.trim() || null,
  };
}

/** The plan as it would be, a breath after the wish rests. */
function usePlan(wish: Wish): { plan: PourPlan | null; faults: Fault[] } {
  const [found, setFound] = useState<{ plan: PourPlan | null; faults: Fault[] }>({ plan: null, faults: [] });
  const key = JSON.stringify(bodyOf(wish));
  useEffect(() => {
    let isStale = false;
    const timer = setTimeout(() => {
      const body = JSON.parse(key) as { product: string };
      if (!body.product) return;
      void send<PourPlan>('POST', address('batches', 'plan'), body).then((answer) => {
        if (isStale) return;
        setFound(answer.ok ? { plan: answer.body, faults: [] } : { plan: null, faults: answer.faults });
      });
    }, 250);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [key]);
  return found;
}

function Wants({ plan }: { plan: PourPlan }) {
  const { sheet, needed, notes, verdict } = plan;
  const minded = needed.filter(({ warnings }) => warnings.length > 0);
  const hours = sheet.minutes / 60;
  return (
    <section aria-label="What the day wants" className="mt-3 grid gap-2">
      <p>
        Fats {grams(sheet.fatsG)}, lye {grams(sheet.alkaliG)}
        {sheet.lyeStock && ` (${grams(sheet.lyeStock.massG)} of stock)`}, batter {grams(sheet.pourG)}
        {sheet.bars !== null && `, about ${sheet.bars} bars`}. {sheet.steps.length} steps, some{' '}
        {hours.toFixed(1)} hours with the waiting.
      </p>
      <p>As planned: {verdict ? VERDICT_WORDS[verdict] : 'does not reckon'}.</p>
      <p className="text-soft">
        Set out: {sheet.vessels.join(', ')}; goggles, gloves, long sleeves, closed shoes.
      </p>
      {notes.length > 0 && (
        <ul aria-label="Found out last time" className="border-l-4 border-ink pl-3">
          {notes.map(({ batch, code, text }) => (
            <li key={`${batch} ${text}`}>
              {text} <span className="text-soft">({code})</span>
            </li>
          ))}
        </ul>
      )}
      {minded.length > 0 && (
        <>
          <h2 className="font-medium">Mind before anything is melted</h2>
          <ul>
            {minded.map(({ material, name, neededG, warnings }) => (
              <li key={material} className="border-b border-hair py-0.5">
                <span className="font-medium">{name}</span>, {grams(neededG)} wanted. {warnings.join(' ')}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

const SIZE_WORDS: Record<SizeKind, string> = { bars: 'Bars', fats: 'Fats, grams', mould: 'Moulds, how many' };

interface FieldsProps extends Props {
  wish: Wish;
  set: (change: Partial<Wish>) => void;
}

function Choice({
  label,
  value,
  options,
  onChange,
  className,
}: {
  label: string;
  value: string;
  options: readonly { id: string; name: string }[];
  onChange: (id: string) => void;
  className?: string;
}) {
  return (
    <label className={className}>
      <span className="eyebrow block">{label}</span>
      <select
        className="field w-full"
        aria-label={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

const SIZES: readonly { id: SizeKind; name: string }[] = [
  { id: 'bars', name: 'bars' },
  { id: 'fats', name: 'fats' },
  { id: 'mould', name: 'moulds' },
];

function Fields({ bars, moulds, wish, set }: FieldsProps) {
  const input = (label: string, name: 'size' | 'stock' | 'by', mode: 'decimal' | 'text' = 'decimal') => (
    <label>
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-full"
        inputMode={mode}
        value={wish[name]}
        onChange={(event) => set({ [name]: event.target.value })}
      />
    </label>
  );
  const choose = (id: string) => set({ kind: id as SizeKind });
  return (
    <div className="grid grid-cols-2 gap-3">
      <Choice
        className="col-span-2"
        label="Bar"
        value={wish.product}
        options={bars}
        onChange={(product) => set({ product })}
      />
      <Choice label="Size by" value={wish.kind} options={SIZES} onChange={choose} />
      {input(`${SIZE_WORDS[wish.kind]} (empty: as the formula stands)`, 'size')}
      {wish.kind === 'mould' && (
        <Choice
          className="col-span-2"
          label="Mould"
          value={wish.mould}
          options={moulds}
          onChange={(mould) => set({ mould })}
        />
      )}
      {input('Lye stock made beforehand, % (empty: none)', 'stock')}
      {input('Who pours', 'by', 'text')}
    </div>
  );
}

interface PlanProps extends Props {
  /** The bar that is to be poured; null where none was asked for. */
  product?: string | null;
  /** How it was poured the last time. */
  last?: LastPour | null;
}

/** Plans a pour: bar, size, lye stock, who; what is missing is said before it is begun. */
function PlanPourIsland({ bars, moulds, product = null, last = null }: PlanProps) {
  const [wish, setWish] = useState<Wish>({
    product: product ?? bars[0]?.id ?? '',
    kind: last?.kind ?? 'bars',
    size: last ? String(last.size) : '',
    mould: last?.mould ?? moulds[0]?.id ?? '',
    stock: last?.concentrationPct == null ? '' : String(last.concentrationPct),
    by: last?.by ?? '',
  });
  const [key] = useState(makeKey);
  const [begun, setBegun] = useState<Fault[]>([]);
  const { plan, faults } = usePlan(wish);
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    const answer = await send<BatchDetail>('POST', address('batches'), bodyOf(wish), key);
    if (answer.ok) location.assign(`/pour/${answer.body.id}`);
    else setBegun(answer.faults);
  };
  if (bars.length === 0)
    return <p className="text-soft">There is no bar yet. Make one on the range first.</p>;
  return (
    <form className="sheet" aria-label="Plan a pour" onSubmit={(event) => void begin(event)}>
      {last && wish.product === product && (
        <p className="pb-2 text-soft">Filled in as batch {last.code} was poured.</p>
      )}
      <Fields bars={bars} moulds={moulds} wish={wish} set={(change) => setWish({ ...wish, ...change })} />
      <Faults faults={begun.length > 0 ? begun : faults} />
      {plan && <Wants plan={plan} />}
      <button type="submit" className="action action-strong mt-3" disabled={!plan}>
        Begin this batch
      </button>
    </form>
  );
}

export const PlanPour = guarded('Planning a pour', PlanPourIsland);
