import { LIQUID_BASES, USED_ON, type Formula, type UsedOn } from '../../core/formula/types';
import { USED_ON_WORDS } from '../../ui/words';
import { NumberField } from '../../ui/ReadField';
import { useTable } from './context';
import { joinBatter, sharePortions, splitBatter } from './edits';

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

/** Fats in all, superfat, lye purity, liquid, cure, margin and portions. */
export function BatterSettings() {
  const { formula, assessment, change, setUnread } = useTable();
  const set = (key: string, part: Partial<Formula>) => change({ ...formula, ...part }, `batter ${key}`);
  const field = (
    key: string,
    label: string,
    unit: string,
    value: number,
    span: [number, number],
    to: (v: number) => Partial<Formula>,
  ) => (
    <NumberField
      key={key}
      label={label}
      unit={unit}
      value={value}
      least={span[0]}
      most={span[1]}
      onChange={(next) => set(key, to(next))}
      onFault={(message) => setUnread(`batter ${key}`, message)}
    />
  );
  const { alkali, liquid, cure, portions } = formula;
  const { liquidG, fatsG, alkaliG } = assessment.masses;
  return (
    <div className="mt-2 flex flex-wrap gap-x-5 gap-y-2">
      {formula.fatsMassG != null &&
        field('fats', 'Fats in all', 'g', formula.fatsMassG, [1, 1e6], (fatsMassG) => ({ fatsMassG }))}
      {alkali.superfatPct != null &&
        field('superfat', 'Superfat', '%', alkali.superfatPct, [0, 60], (superfatPct) => ({
          alkali: { ...alkali, superfatPct },
        }))}
      {field('purity', 'Lye purity', '%', alkali.purityPct ?? 100, [80, 100], (purityPct) => ({
        alkali: { ...alkali, purityPct },
      }))}
      {liquid && (
        <div className="flex items-end gap-1">
          {field('liquid', 'Liquid', '', liquid.value, [0.1, 1000], (value) => ({
            liquid: { ...liquid, value },
          }))}
          <select
            className="field"
            aria-label="Liquid is stated as"
            value={liquid.basis}
            onChange={(event) => {
              const basis = event.target.value as typeof liquid.basis;
              set('basis', { liquid: { basis, value: liquidIn(basis, liquidG, fatsG, alkaliG) } });
            }}
          >
            {LIQUID_BASES.map((basis) => (
              <option key={basis} value={basis}>
                {LIQUID_UNITS[basis]}
              </option>
            ))}
          </select>
        </div>
      )}
      {cure?.massRatio != null
        ? field('ratio', 'Cured weighs', '% of the pour', cure.massRatio * 100, [1, 100], (v) => ({
            cure: { massRatio: v / 100 },
          }))
        : field('water', 'Water left', '%', cure?.residualWaterPct ?? 8, [0, 40], (residualWaterPct) => ({
            cure: { residualWaterPct },
          }))}
      <label>
        <span className="eyebrow block">Used on</span>
        <select
          className="field"
          value={formula.usedOn ?? 'body'}
          onChange={(event) => set('usedOn', { usedOn: event.target.value as UsedOn })}
        >
          {USED_ON.map((place) => (
            <option key={place} value={place}>
              {USED_ON_WORDS[place]}
            </option>
          ))}
        </select>
      </label>
      {field('margin', 'Margin', '%', formula.marginPct ?? 10, [0, 90], (marginPct) => ({ marginPct }))}
      {portions?.length === 2 &&
        field('share', `Portion ${portions[0]!.id}`, '%', portions[0]!.share * 100, [1, 99], (v) =>
          sharePortions(formula, v / 100),
        )}
      <button
        type="button"
        className="action self-end py-0"
        onClick={() =>
          change(portions?.length ? joinBatter(formula) : splitBatter(formula), `portions ${Date.now()}`)
        }
      >
        {portions?.length ? 'One batter again' : 'Split into two portions'}
      </button>
    </div>
  );
}
