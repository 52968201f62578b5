import { memo } from 'react';
import { LIQUID_BASES, PROCESSES, USED_ON, type Formula, type UsedOn } from '../../core/formula/types';
import { USED_ON_WORDS } from '../../ui/words';
import { NumberField } from '../../ui/ReadField';
import { Select } from '../../ui/Select';
import { newStep } from '../../ui/step';
import { useTable, type Table } from './context';
import { Still } from './Later';
import { joinBatter, splitBatter } from './edits';

const LIQUID_UNITS = { ofFats: '% of fats', perAlkali: 'parts to 1 of lye', alkaliConcentration: '% lye' };

/** What a liquid's value is in another basis for the same mass of water. */
function liquidIn(
  basis: (typeof LIQUID_BASES)[number],
  liquidG: number,
  fatsG: number,
  alkaliG: number,
): number {
  const value = {
    ofFats: (100 * liquidG) / fatsG,
    perAlkali: liquidG / alkaliG,
    alkaliConcentration: (100 * alkaliG) / (alkaliG + liquidG),
  }[basis];
  return Number(value.toFixed(3));
}

const BASIS_OPTIONS = LIQUID_BASES.map((basis) => [basis, LIQUID_UNITS[basis]] as const);
type Process = (typeof PROCESSES)[number];
const PROCESS_WORDS: Record<Process, string> = { cold: 'cold process', hot: 'hot process' };
const PROCESS_OPTIONS = PROCESSES.map((process) => [process, PROCESS_WORDS[process]] as const);
const USED_ON_OPTIONS = USED_ON.map((place) => [place, USED_ON_WORDS[place]] as const);

interface FigureProps {
  at: string;
  label: string;
  unit: string;
  value: number;
  span: readonly [least: number, most: number];
  to: (value: number, now: Formula) => Partial<Formula>;
}

/** One figure of the batter, put into the formula as it is typed. */
function Figure({ at, label, unit, value, span, to }: FigureProps) {
  const { change, setUnread } = useTable();
  return (
    <NumberField
      label={label}
      unit={unit}
      value={value}
      least={span[0]}
      most={span[1]}
      onChange={(next) => change((now) => ({ ...now, ...to(next, now) }), `batter ${at}`)}
      onFault={(message) => setUnread(`batter ${at}`, message)}
    />
  );
}

function Liquid({ liquid }: { liquid: NonNullable<Formula['liquid']> }) {
  const { assessment, change } = useTable();
  const { liquidG, fatsG, alkaliG } = assessment.masses;
  const state = (basis: typeof liquid.basis) => {
    const value = liquidIn(basis, liquidG, fatsG, alkaliG);
    change((now) => ({ ...now, liquid: { basis, value } }), 'batter basis');
  };
  return (
    <div className="flex items-end gap-1">
      <Figure
        at="liquid"
        label="Liquid"
        unit=""
        value={liquid.value}
        span={[0.1, 1000]}
        to={(value) => ({ liquid: { ...liquid, value } })}
      />
      <Select label="stated as" value={liquid.basis} options={BASIS_OPTIONS} onChange={state} />
    </div>
  );
}

function Cure() {
  const { cure } = useTable().formula;
  if (cure?.massRatio != null)
    return (
      <Figure
        at="ratio"
        label="Cured weighs"
        unit="% of the pour"
        value={cure.massRatio * 100}
        span={[1, 100]}
        to={(value) => ({ cure: { massRatio: value / 100 } })}
      />
    );
  return (
    <Figure
      at="water"
      label="Water in the cured bar"
      unit="%"
      value={cure?.residualWaterPct ?? 8}
      span={[0, 40]}
      to={(residualWaterPct) => ({ cure: { residualWaterPct } })}
    />
  );
}

function Lye() {
  const { fatsMassG, alkali } = useTable().formula;
  return (
    <>
      {fatsMassG != null && (
        <Figure
          at="fats"
          label="Fats in all"
          unit="g"
          value={fatsMassG}
          span={[1, 1e6]}
          to={(value) => ({ fatsMassG: value })}
        />
      )}
      {alkali.superfatPct != null && (
        <Figure
          at="superfat"
          label="Superfat"
          unit="%"
          value={alkali.superfatPct}
          span={[0, 60]}
          to={(superfatPct, now) => ({ alkali: { ...now.alkali, superfatPct } })}
        />
      )}
      <Figure
        at="purity"
        label="Lye purity"
        unit="%"
        value={alkali.purityPct ?? 100}
        span={[80, 100]}
        to={(purityPct, now) => ({ alkali: { ...now.alkali, purityPct } })}
      />
    </>
  );
}

function Portions() {
  const { formula, change } = useTable();
  const isSplit = Boolean(formula.portions?.length);
  return (
    <>
      <button
        type="button"
        className="action self-end py-0"
        onClick={() => change(isSplit ? joinBatter : splitBatter, newStep('portions'))}
      >
        {isSplit ? 'One batter again' : 'Split into two portions'}
      </button>
    </>
  );
}

/** What the settings show: the formula without its lines, and the masses that a liquid is restated by. */
function settingsOf({ data, formula, assessment }: Table): string {
  const { liquidG, fatsG, alkaliG } = assessment.masses;
  return JSON.stringify([data.product.id, { ...formula, lines: [] }, liquidG, fatsG, alkaliG]);
}

/** Fats in all, superfat, lye purity, liquid, cure, margin and portions; drawn again only where they change. */
export function BatterSettings() {
  return (
    <Still by={settingsOf}>
      <Settings />
    </Still>
  );
}

const Settings = memo(function Settings() {
  const { formula, change } = useTable();
  return (
    <div className="mt-2 flex flex-wrap gap-x-5 gap-y-2">
      <Lye />
      {formula.liquid && <Liquid liquid={formula.liquid} />}
      <Cure />
      <Select<UsedOn>
        label="Used on"
        value={formula.usedOn ?? 'body'}
        options={USED_ON_OPTIONS}
        onChange={(usedOn) => change((now) => ({ ...now, usedOn }), 'batter used on')}
      />
      <Figure
        at="margin"
        label="Keep free under limits"
        unit="%"
        value={formula.marginPct ?? 10}
        span={[0, 90]}
        to={(marginPct) => ({ marginPct })}
      />
      <Select<Process>
        label="Made by"
        value={formula.process ?? 'cold'}
        options={PROCESS_OPTIONS}
        onChange={(process) => change((now) => ({ ...now, process }), 'batter process')}
      />
      <Portions />
    </div>
  );
});
