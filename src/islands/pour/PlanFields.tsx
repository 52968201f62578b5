/** What is wished of a pour: bar, size by bars, fats or moulds of several kinds, lye stock, who. */
import { massUnit, toType, typedGramsOrNull } from '../../ui/masses';
import { Plus, X } from 'lucide-react';
import { lyeStockWords, readLyeStock } from '../../core/making/lye-stock';
import type { Mould } from '../../core/making/size';
import { readNumberOrNull } from '../../core/quantities/number';
import type { LastPour, MadeBeforehand } from '../../core/records/batch';
import { stock } from '../../ui/words';

export interface Props {
  bars: readonly { id: string; name: string }[];
  moulds: readonly Mould[];
  /** What was made beforehand: lots of lye stock, and mixes of fats with what is left of them. */
  made: MadeBeforehand;
}

type SizeKind = LastPour['kind'];

export interface Wish {
  product: string;
  kind: SizeKind;
  /** Bars or fats, as typed. */
  size: string;
  /** Rows of moulds, as typed. */
  moulds: { id: string; count: string }[];
  stock: string;
  /** As much of the stock as there is water for, the rest of the alkali dry. */
  restDry: boolean;
  /** The stock is taken from a lot of its own. */
  isMade: boolean;
  /** The mix of fats that is drawn from; empty for none. */
  bucket: string;
  by: string;
  despite: string;
}

/** A bar's wish as it was poured the last time; as the formula stands where it never was. */
export function wishOf(product: string, last: LastPour | null, moulds: readonly Mould[]): Wish {
  const usual = moulds[0] ? [{ id: moulds[0].id, count: '1' }] : [];
  const filled = (last?.moulds ?? []).map(({ id, count }) => ({ id, count: String(count) }));
  return {
    product,
    kind: last?.kind ?? 'bars',
    size: last && last.kind !== 'mould' ? (last.kind === 'fats' ? toType(last.size) : String(last.size)) : '',
    moulds: filled.length > 0 ? filled : usual,
    stock: last?.concentrationPct == null ? '' : String(Number(last.concentrationPct.toFixed(4))),
    restDry: last?.restDry ?? false,
    isMade: last?.isMade ?? false,
    bucket: last?.bucket ?? '',
    by: last?.by ?? '',
    despite: '',
  };
}

function sizeOf({ kind, size, moulds }: Wish) {
  if (kind === 'mould') {
    const filled = moulds.flatMap(({ id, count }) => {
      const value = readNumberOrNull(count);
      return value === null ? [] : [{ id, count: Math.round(value) }];
    });
    return filled.length > 0 ? { moulds: filled } : {};
  }
  const value = kind === 'fats' ? typedGramsOrNull(size) : readNumberOrNull(size);
  if (value === null) return {};
  return kind === 'bars' ? { bars: Math.round(value) } : { fatsMassG: value };
}

/** The request that plans or begins it. */
export function bodyOf(wish: Wish) {
  const { product, stock, restDry, isMade, bucket, by, despite } = wish;
  const concentrationPct = readLyeStock(stock);
  return {
    product,
    size: sizeOf(wish),
    lyeStock:
      concentrationPct === null
        ? null
        : { concentrationPct, ...(restDry ? { restDry } : {}), ...(isMade ? { isMade } : {}) },
    ...(bucket === '' ? {} : { bucket }),
    by: by.trim() || null,
    ...(despite.trim() ? { despite: despite.trim() } : {}),
  };
}

const SIZE_WORDS: Record<'bars' | 'fats', string> = { bars: 'Bars', fats: 'Fats' };

export interface FieldsProps extends Props {
  wish: Wish;
  set: (change: Partial<Wish>) => void;
}

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly { id: string; name: string }[];
  onChange: (id: string) => void;
  className?: string;
}

function Choice({ label, value, options, onChange, className }: ChoiceProps) {
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

/** Moulds to be filled, a row a kind. */
function MouldRows({ moulds, wish, set }: Pick<FieldsProps, 'moulds' | 'wish' | 'set'>) {
  const rows = wish.moulds;
  const free = moulds.filter(({ id }) => !rows.some((row) => row.id === id));
  const put = (at: number, change: Partial<(typeof rows)[number]>) =>
    set({ moulds: rows.map((row, place) => (place === at ? { ...row, ...change } : row)) });
  return (
    <div className="col-span-2 grid gap-1">
      {rows.map(({ id, count }, at) => (
        <div key={id} className="flex items-end gap-2">
          <label className="w-24">
            <span className="eyebrow block">How many</span>
            <input
              className="field w-full"
              inputMode="numeric"
              value={count}
              onChange={(event) => put(at, { count: event.target.value })}
            />
          </label>
          <Choice
            className="min-w-0 flex-1"
            label="Mould"
            value={id}
            options={moulds.filter((one) => one.id === id || free.includes(one))}
            onChange={(other) => put(at, { id: other })}
          />
          {rows.length > 1 && (
            <button
              type="button"
              className="action"
              aria-label={`No ${moulds.find((one) => one.id === id)?.name ?? 'mould'}`}
              onClick={() => set({ moulds: rows.filter((_, place) => place !== at) })}
            >
              <X size={15} aria-hidden="true" />
            </button>
          )}
        </div>
      ))}
      {free.length > 0 && (
        <button
          type="button"
          className="action justify-self-start py-0"
          onClick={() => set({ moulds: [...rows, { id: free[0]!.id, count: '1' }] })}
        >
          <Plus size={15} aria-hidden="true" /> Another kind of mould
        </button>
      )}
    </div>
  );
}

/** The lots of lye stock and the buckets of fats that may be drawn from. */
function Beforehand({ made: { stocks, buckets }, wish, set }: Pick<FieldsProps, 'made' | 'wish' | 'set'>) {
  const pct = readLyeStock(wish.stock);
  const same = (strengthPct: number) => pct !== null && Math.abs(strengthPct - pct) < 0.01;
  const chosen = wish.isMade ? stocks.find(({ strengthPct }) => same(strengthPct)) : undefined;
  const take = (id: string) => {
    const lot = stocks.find((one) => one.id === id);
    set(lot ? { stock: String(Number(lot.strengthPct.toFixed(4))), isMade: true } : { isMade: false });
  };
  const kept = stocks.map(({ id, code, strengthPct, leftG }) => ({
    id,
    name: `${code}: ${lyeStockWords(strengthPct)}, ${stock(leftG)} left`,
  }));
  return (
    <>
      {stocks.length > 0 && (
        <Choice
          className="col-span-2"
          label="Lye stock that stands ready"
          value={chosen?.id ?? ''}
          options={[{ id: '', name: 'none of these' }, ...kept]}
          onChange={take}
        />
      )}
      {buckets.length > 0 && (
        <Choice
          className="col-span-2"
          label="Fats from a bucket"
          value={wish.bucket}
          options={[
            { id: '', name: 'none: each fat by itself' },
            ...buckets.map(({ id, name, freeG }) => ({ id, name: `${name}, ${stock(freeG)} left` })),
          ]}
          onChange={(bucket) => set({ bucket })}
        />
      )}
    </>
  );
}

/** The fields of a plan. */
export function PlanFields({ bars, moulds, made, wish, set }: FieldsProps) {
  const input = (label: string, name: 'size' | 'stock' | 'by', mode: 'decimal' | 'text' = 'decimal') => (
    <label>
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-full"
        inputMode={mode}
        value={wish[name]}
        onChange={(event) =>
          set({ [name]: event.target.value, ...(name === 'stock' ? { isMade: false } : {}) })
        }
      />
    </label>
  );
  const { kind } = wish;
  return (
    <div className="grid grid-cols-2 gap-3">
      <Choice
        className="col-span-2"
        label="Bar"
        value={wish.product}
        options={bars}
        onChange={(product) => set({ product })}
      />
      <Choice
        label="Size by"
        value={kind}
        options={SIZES}
        onChange={(id) => set({ kind: id as SizeKind, size: '' })}
      />
      {kind === 'mould' ? (
        <span />
      ) : (
        input(
          `${SIZE_WORDS[kind]}${kind === 'fats' ? `, ${massUnit()}` : ''} (empty: as the formula stands)`,
          'size',
        )
      )}
      {kind === 'mould' && <MouldRows moulds={moulds} wish={wish} set={set} />}
      {input('Lye stock: 1 to 1, or %', 'stock')}
      {input('Who pours', 'by', 'text')}
      <Beforehand made={made} wish={wish} set={set} />
      {readLyeStock(wish.stock) !== null && (
        <label className="col-span-2 flex items-center gap-2">
          <input
            type="checkbox"
            checked={wish.restDry}
            onChange={(event) => set({ restDry: event.target.checked })}
          />
          Part stock, part dry: where a frozen or milky liquid leaves too little water for all of it
        </label>
      )}
    </div>
  );
}
