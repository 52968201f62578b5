import { Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Formula } from '../../core/formula/types';
import { costOf, type Cost } from '../../core/making/cost';
import {
  batterVolume,
  fillMoulds,
  scaleFactor,
  scaleFormula,
  type Mould,
  type Target,
} from '../../core/making/size';
import { useKeeping } from '../../ui/keeping';
import { address, send } from '../../ui/api';
import { NumberField } from '../../ui/ReadField';
import { Straightedge } from '../../ui/Straightedge';
import { grams, money } from '../../ui/words';
import { useTable } from './context';

/** Amounts scaled to a size are rounded to this many decimals. */
const DECIMALS = 4;

function rounded(formula: Formula): Formula {
  const round = (value: number) => Number(value.toFixed(DECIMALS));
  return {
    ...formula,
    fatsMassG: formula.fatsMassG == null ? formula.fatsMassG : round(formula.fatsMassG),
    lines: formula.lines.map((line) => ({
      ...line,
      amount: { ...line.amount, value: round(line.amount.value) },
    })),
  };
}

function litres(volumeMl: number): string {
  return volumeMl >= 1000 ? `${(volumeMl / 1000).toFixed(2)} L` : `${volumeMl.toFixed(0)} mL`;
}

interface StoredMoulds {
  moulds: Mould[];
  revision: number;
}

interface MouldListProps {
  moulds: Mould[];
  /** The revision they were loaded at. */
  loaded: number;
  onChange: (moulds: Mould[]) => void;
}

/** The maker's moulds, changed and kept on the spot. */
function MouldList({ moulds, loaded, onChange }: MouldListProps) {
  const [revision, setRevision] = useState(loaded);
  const { faults, keep } = useKeeping<StoredMoulds>((newer) => setRevision(newer.revision));
  const fault = faults[0]?.message;
  const [name, setName] = useState('');
  const [volume, setVolume] = useState('');
  const [cavities, setCavities] = useState('1');
  const keepAll = async (next: Mould[]) => {
    const body = { moulds: next, revision };
    const kept = await keep(() => send<StoredMoulds>('PUT', address('moulds'), body));
    if (!kept) return false;
    setRevision(kept.revision);
    onChange(kept.moulds);
    return true;
  };
  const add = async () => {
    const mould = { id: `mould-${Date.now()}`, name, volumeMl: Number(volume), cavities: Number(cavities) };
    if (await keepAll([...moulds, mould])) [setName, setVolume].forEach((clear) => clear(''));
  };
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-ultra">My moulds</summary>
      <ul>
        {moulds.map((mould) => (
          <li key={mould.id} className="flex items-center justify-between border-b border-hair py-0.5">
            <span>
              {mould.name}, {litres(mould.volumeMl)}, {mould.cavities} bars
            </span>
            <button
              type="button"
              className="icon-action"
              aria-label={`Remove ${mould.name}`}
              onClick={() => void keepAll(moulds.filter(({ id }) => id !== mould.id))}
            >
              <Trash2 size={15} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1 flex flex-wrap items-end gap-2">
        <label>
          <span className="eyebrow block">Name</span>
          <input className="field w-32" value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <label>
          <span className="eyebrow block">Holds, mL</span>
          <input
            className="field w-20"
            inputMode="decimal"
            value={volume}
            onChange={(event) => setVolume(event.target.value)}
          />
        </label>
        <label>
          <span className="eyebrow block">Bars</span>
          <input
            className="field w-14"
            inputMode="numeric"
            value={cavities}
            onChange={(event) => setCavities(event.target.value)}
          />
        </label>
        <button type="button" className="action py-0" onClick={() => void add()}>
          Add
        </button>
      </div>
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
    </details>
  );
}

function CostTable({ cost, bars }: { cost: Cost; bars: number | null | undefined }) {
  const { data, materialName } = useTable();
  const name = (id: string) => (id === 'sodium-hydroxide' ? 'Sodium hydroxide' : materialName(id));
  const dear = cost.lines
    .filter((line) => line.cost !== null && line.cost > 0)
    .sort((a, b) => b.cost! - a.cost!);
  return (
    <section aria-label="Cost" className="mt-3">
      <h3 className="text-lg">
        {money(cost.total, data.currency)} a batch
        {cost.perBar !== null && (
          <>
            {' '}
            · {money(cost.perBar, data.currency)} a bar of {bars}
          </>
        )}
      </h3>
      <table className="plain-table">
        <tbody>
          {dear.map((line) => (
            <tr key={line.line ?? 'alkali'}>
              <th scope="row">{name(line.material)}</th>
              <td className="text-right tabular-nums">{grams(line.massG)}</td>
              <td className="text-right tabular-nums">{money(line.cost!, data.currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {cost.unpriced.length > 0 && (
        <p className="eyebrow">
          No price on file, so not counted: {cost.unpriced.map(name).join(', ')}. Add a lot in the cupboard.
        </p>
      )}
    </section>
  );
}

/** Size to a mould, to bars or to a mass of fats; what is left over; and what it costs. */
export function SizePanel() {
  const { data, formula, assessment, change, material, materialName, setUnread } = useTable();
  const [moulds, setMoulds] = useState(data.moulds);
  const [mouldId, setMouldId] = useState(data.moulds[0]?.id ?? '');
  const [count, setCount] = useState(1);
  const [barG, setBarG] = useState(Math.round(assessment.masses.curedG / (formula.bars || 1)));
  const [wantedBars, setWantedBars] = useState(formula.bars ?? 12);
  const [wantedFats, setWantedFats] = useState(Math.round(assessment.masses.fatsG));
  const { volumeMl, guessed } = useMemo(
    () => batterVolume(formula, assessment, material),
    [formula, assessment, material],
  );
  const cost = useMemo(
    () =>
      costOf(
        formula,
        assessment,
        (id) => data.prices[id] ?? null,
        (id) => material(id)?.madeOf ?? [],
      ),
    [formula, assessment, data.prices, material],
  );
  const mould = moulds.find(({ id }) => id === mouldId);
  const fill = mould ? fillMoulds(volumeMl, assessment.masses.pourG, mould) : null;
  const ignore = () => undefined;
  const sizeTo = (target: Target, bars: number | null) => {
    const sized = rounded(scaleFormula(formula, scaleFactor(target, assessment, volumeMl)));
    change(bars === null ? sized : { ...sized, bars }, `size ${Date.now()}`);
  };
  const of = mould ? count * mould.volumeMl : 0;
  return (
    <section aria-label="Size and cost" className="py-2">
      <p className="tabular-nums">
        {litres(volumeMl)} of batter · {grams(assessment.masses.pourG)} ·{' '}
        {grams(assessment.masses.curedG / (formula.bars || 1))} a cured bar of {formula.bars ?? 1}
      </p>
      {guessed.length > 0 && (
        <p className="eyebrow">
          No density on file, counted as water:{' '}
          {guessed
            .map((id) => materialName(formula.lines.find((line) => line.id === id)!.material))
            .join(', ')}
          .
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <NumberField
          label="Bars from a batch"
          unit=""
          value={formula.bars ?? 1}
          least={1}
          most={10_000}
          onChange={(bars) => change({ ...formula, bars }, 'bars')}
          onFault={(message) => setUnread('bars', message)}
        />
        <label>
          <span className="eyebrow block">Mould</span>
          <select className="field" value={mouldId} onChange={(event) => setMouldId(event.target.value)}>
            {moulds.map(({ id, name, volumeMl: holds, cavities }) => (
              <option key={id} value={id}>
                {name}, {litres(holds)}, {cavities} bars
              </option>
            ))}
          </select>
        </label>
        <NumberField
          label="Moulds"
          unit=""
          value={count}
          least={1}
          most={200}
          onChange={(value) => setCount(Math.round(value))}
          onFault={ignore}
        />
      </div>
      {mould && fill && (
        <>
          <div className="mt-1 h-9">
            <Straightedge
              load={{ low: volumeMl / of, nominal: volumeMl / of, high: volumeMl / of }}
              margin={0}
              label={`${litres(volumeMl)} of batter against ${litres(of)} of mould`}
            />
          </div>
          <p>
            {fill.full > 0 && `Fills ${fill.full} to the rim. `}
            {fill.leftMl < 1
              ? 'Nothing is left over.'
              : `${litres(fill.leftMl)} (${grams(fill.leftG)}) ${fill.full > 0 ? 'left over' : 'in it'}, enough for ${fill.leftBars === 1 ? 'one bar' : `${fill.leftBars} bars`} of its size.`}
          </p>
          <button
            type="button"
            className="action mt-1"
            onClick={() => sizeTo({ kind: 'mould', mould, count }, mould.cavities * count)}
          >
            Size to fill {count} × {mould.name}
          </button>
        </>
      )}
      {!mould && <p>No mould on file. Add one, and the batch can be sized to it.</p>}
      <div className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-2">
        <NumberField
          label="To bars"
          unit=""
          value={wantedBars}
          least={1}
          most={10_000}
          onChange={setWantedBars}
          onFault={ignore}
        />
        <NumberField
          label="each cured"
          unit="g"
          value={barG}
          least={1}
          most={5000}
          onChange={setBarG}
          onFault={ignore}
        />
        <button
          type="button"
          className="action py-0"
          onClick={() => sizeTo({ kind: 'bars', count: wantedBars, barG }, wantedBars)}
        >
          Size to bars
        </button>
        <NumberField
          label="To fats"
          unit="g"
          value={wantedFats}
          least={1}
          most={1e6}
          onChange={setWantedFats}
          onFault={ignore}
        />
        <button
          type="button"
          className="action py-0"
          onClick={() => sizeTo({ kind: 'fats', massG: wantedFats }, null)}
        >
          Size to fats
        </button>
      </div>
      <MouldList moulds={moulds} loaded={data.mouldsRevision} onChange={setMoulds} />
      <CostTable cost={cost} bars={formula.bars} />
    </section>
  );
}
