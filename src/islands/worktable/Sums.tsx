/** What the shares of fats and of liquid come to, and the press that puts right what does not add up. */
import { fatsToHundred, liquidTakesRest, sumsOf } from '../../core/formula/sums';
import { newStep } from '../../ui/step';
import { percent } from '../../ui/words';
import { useTable } from './context';

const OF_WORDS = { fats: 'The fats come to', liquid: 'The liquids come to' } as const;
/** A liquid that is all water, or nearly. */
const WATER_PCT = 99;

/** Sums of what lies on the table, by the masses that it was reckoned to. */
export function useSums() {
  const { formula, assessment } = useTable();
  const masses = new Map(assessment.lines.map(({ id, massG }) => [id, massG]));
  const massOf = (line: string) => masses.get(line) ?? 0;
  return { sums: sumsOf(formula, massOf), massOf };
}

/** The foot of the fats and of the liquids. */
export function Sums() {
  const { formula, change, material, materialName } = useTable();
  const { sums, massOf } = useSums();
  if (sums.length === 0) return null;
  const water = formula.lines.find(
    ({ stage, material: id }) => stage === 'liquid' && (material(id)?.waterPct ?? 0) >= WATER_PCT,
  );
  const mended = {
    fats: fatsToHundred(formula, massOf),
    liquid: water ? liquidTakesRest(formula, water.id, massOf) : null,
  };
  const words = {
    fats: 'Bring them to 100 %',
    liquid: `${water ? materialName(water.material) : ''} takes the rest`,
  };
  return (
    <div
      role="group"
      aria-label="Sums"
      className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pt-1 tabular-nums"
    >
      {sums.map(({ of, pct, isOff }) => (
        <span key={of} className={isOff ? 'font-medium text-madder' : 'text-soft'}>
          {OF_WORDS[of]} {percent(pct)}
          {isOff && mended[of] && (
            <button
              type="button"
              className="action ml-2 py-0"
              onClick={() => change(mended[of]!, newStep('sums'))}
            >
              {words[of]}
            </button>
          )}
        </span>
      ))}
    </div>
  );
}
