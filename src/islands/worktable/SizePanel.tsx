import { HeatWord } from './OutlookPanel';
import { useMemo, useState } from 'react';
import type { Formula } from '../../core/formula/types';
import {
  batterVolume,
  fillMoulds,
  scaleFactor,
  scaleFormula,
  type Mould,
  type Target,
} from '../../core/making/size';
import { NumberField } from '../../ui/ReadField';
import { Select } from '../../ui/Select';
import { Straightedge } from '../../ui/Straightedge';
import { grams, litres } from '../../ui/words';
import { newStep } from '../../ui/step';
import { HeatPanel } from '../heat/HeatPanel';
import { useTable } from './context';
import { CostTable } from './CostTable';
import { MouldList } from './MouldList';

/** Amounts scaled to a size are rounded to this many decimals. */
const DECIMALS = 4;
const MOST_BARS = 10_000;
const MOST_MOULDS = 200;
const HEAVIEST_BAR_G = 5000;
const MOST_FATS_G = 1e6;
const ignore = () => undefined;

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

/** The batter's volume, and scaling the formula to a size. */
function useSizing() {
  const { formula, assessment, change, material } = useTable();
  const { volumeMl, guessed } = useMemo(
    () => batterVolume(formula, assessment, material),
    [formula, assessment, material],
  );
  const sizeTo = (target: Target, bars: number | null) => {
    const sized = rounded(scaleFormula(formula, scaleFactor(target, assessment, volumeMl)));
    change(bars === null ? sized : { ...sized, bars }, newStep('size'));
  };
  return { volumeMl, guessed, sizeTo };
}
type Sizing = ReturnType<typeof useSizing>;

function Volume({ volumeMl, guessed }: Sizing) {
  const { formula, assessment, materialName } = useTable();
  const { pourG, curedG } = assessment.masses;
  const bars = formula.bars ?? 1;
  const names = guessed.map((id) => materialName(formula.lines.find((line) => line.id === id)!.material));
  return (
    <>
      <p className="tabular-nums">
        {litres(volumeMl)} of batter · {grams(pourG)} · {grams(curedG / bars)} a cured bar of {bars}
      </p>
      {names.length > 0 && (
        <p className="eyebrow">No density on file, counted as water: {names.join(', ')}.</p>
      )}
    </>
  );
}

interface InMouldProps extends Sizing {
  mould: Mould;
  count: number;
}

function InMould({ mould, count, volumeMl, sizeTo }: InMouldProps) {
  const { assessment } = useTable();
  const fill = fillMoulds(volumeMl, assessment.masses.pourG, mould);
  const of = count * mould.volumeMl;
  const share = volumeMl / of;
  const bars = fill.leftBars === 1 ? 'one bar' : `${fill.leftBars} bars`;
  return (
    <>
      <div className="mt-1 h-9">
        <Straightedge
          load={{ low: share, nominal: share, high: share }}
          margin={0}
          label={`${litres(volumeMl)} of batter against ${litres(of)} of mould`}
        />
      </div>
      <p>
        {fill.full > 0 && `Fills ${fill.full} to the rim. `}
        {fill.leftMl < 1
          ? 'Nothing is left over.'
          : `${litres(fill.leftMl)} (${grams(fill.leftG)}) ${fill.full > 0 ? 'left over' : 'in it'}, enough for ${bars} of its size.`}
      </p>
      <button
        type="button"
        className="action mt-1"
        onClick={() => sizeTo({ kind: 'mould', mould, count }, mould.cavities * count)}
      >
        Size to fill {count} × {mould.name}
      </button>
    </>
  );
}

function ToMoulds(sizing: Sizing) {
  const { data, formula, change, material, setUnread } = useTable();
  const [moulds, setMoulds] = useState(data.moulds);
  const [mouldId, setMouldId] = useState(data.moulds[0]?.id ?? '');
  const [count, setCount] = useState(1);
  const mould = moulds.find(({ id }) => id === mouldId);
  const options = moulds.map(
    ({ id, name, volumeMl, cavities }) => [id, `${name}, ${litres(volumeMl)}, ${cavities} bars`] as const,
  );
  return (
    <>
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <NumberField
          label="Bars from a batch"
          unit=""
          value={formula.bars ?? 1}
          least={1}
          most={MOST_BARS}
          onChange={(bars) => change({ ...formula, bars }, 'bars')}
          onFault={(message) => setUnread('bars', message)}
        />
        <Select label="Mould" value={mouldId} options={options} onChange={setMouldId} />
        <NumberField
          label="Moulds"
          unit=""
          value={count}
          least={1}
          most={MOST_MOULDS}
          onChange={(value) => setCount(Math.round(value))}
          onFault={ignore}
        />
      </div>
      {mould ? (
        <InMould mould={mould} count={count} {...sizing} />
      ) : (
        <p>No mould on file. Add one, and the batch can be sized to it.</p>
      )}
      {mould && <HeatPanel formula={formula} material={material} moulds={moulds} mould={mould} />}
      <MouldList moulds={moulds} loaded={data.mouldsRevision} onChange={setMoulds} />
    </>
  );
}

function ToBarsOrFats({ sizeTo }: Sizing) {
  const { formula, assessment } = useTable();
  const { curedG, fatsG } = assessment.masses;
  const [barG, setBarG] = useState(Math.round(curedG / (formula.bars || 1)));
  const [bars, setBars] = useState(formula.bars ?? 12);
  const [wantedG, setWantedG] = useState(Math.round(fatsG));
  const field = (label: string, unit: string, value: number, most: number, set: (to: number) => void) => (
    <NumberField
      label={label}
      unit={unit}
      value={value}
      least={1}
      most={most}
      onChange={set}
      onFault={ignore}
    />
  );
  return (
    <div className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-2">
      {field('To bars', '', bars, MOST_BARS, setBars)}
      {field('each cured', 'g', barG, HEAVIEST_BAR_G, setBarG)}
      <button
        type="button"
        className="action py-0"
        onClick={() => sizeTo({ kind: 'bars', count: bars, barG }, bars)}
      >
        Size to bars
      </button>
      {field('To fats', 'g', wantedG, MOST_FATS_G, setWantedG)}
      <button
        type="button"
        className="action py-0"
        onClick={() => sizeTo({ kind: 'fats', massG: wantedG }, null)}
      >
        Size to fats
      </button>
    </div>
  );
}

/** Size to a mould, to bars or to a mass of fats; what is left over; and what it costs. */
export function SizePanel() {
  const sizing = useSizing();
  return (
    <section aria-label="Size and cost" className="py-2">
      <HeatWord />
      <Volume {...sizing} />
      <ToMoulds {...sizing} />
      <ToBarsOrFats {...sizing} />
      <CostTable />
    </section>
  );
}
