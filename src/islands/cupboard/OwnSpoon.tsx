import { useState } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { LEAST_SPOONS, ownSpoon } from '../../core/making/own-spoon';
import type { SpoonUnit } from '../../core/making/spoons';
import { typedGrams } from '../../ui/masses';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { gramsAt } from '../../ui/words';
import type { Draft } from './material-draft';

const SPOONS: readonly (readonly [SpoonUnit, string])[] = [
  ['tsp', 'teaspoon'],
  ['tbsp', 'tablespoon'],
];

/** Weighs the maker's own spoon of the material: mean and spread take the place of what is usual. */
export function OwnSpoon() {
  const { setValue } = useFormContext<Draft>();
  const measured = useWatch<Draft, 'spoonPct'>({ name: 'spoonPct' });
  const [unit, setUnit] = useState<SpoonUnit>('tsp');
  const [text, setText] = useState('');
  const weights = text.split(/[\s;]+/).filter(Boolean);
  const found = ownSpoon(
    weights.map((one) => typedGrams(one)),
    unit,
  );
  const take = () => {
    if (!found) return;
    setValue('bulkDensity', String(found.gPerMl), { shouldDirty: true });
    setValue('spoonPct', String(found.pct), { shouldDirty: true });
    setText('');
  };
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-ultra">
        Your own spoon{measured && `: a level one is known to ${measured} %`}
      </summary>
      <div className="flex flex-wrap items-end gap-3 py-1">
        <Select label="Spoon" value={unit} options={SPOONS} onChange={setUnit} />
        <TextField label="Three level spoons or more, each weighed" value={text} onChange={setText} />
        <p className="text-soft">
          {found
            ? `${gramsAt(found.meanG, 0.01)} each, nine in ten within ${found.pct} %`
            : `${Math.max(0, LEAST_SPOONS - weights.length)} more to weigh`}
        </p>
        <button type="button" className="action" disabled={!found} onClick={take}>
          Take it
        </button>
        {measured && (
          <button
            type="button"
            className="action"
            onClick={() => setValue('spoonPct', '', { shouldDirty: true })}
          >
            The usual doubt again
          </button>
        )}
      </div>
    </details>
  );
}
