import { Plus } from 'lucide-react';
import { useState } from 'react';
import { PURPOSE, PURPOSES, type PurposeId } from '../../core/formula/purposes';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { guarded } from '../../ui/Guarded';
import { useKeeping } from '../../ui/keeping';
import { useQueryParam } from '../../ui/query-param';
import { RecipeText } from './RecipeText';

/** Starts a bar by its purpose, one press each, or plain under its name, or from a recipe as text. */
function NewBarIsland() {
  const [name, setName] = useState('');
  const [asked, setAsked] = useQueryParam('recipe');
  const { busy, faults, setFaults, keep } = useKeeping();
  const start = async (purpose: PurposeId, called: string) => {
    const made = await keep((key) =>
      send<Product>('POST', address('products'), { name: called, purpose }, key),
    );
    if (made) location.assign(`/bars/${made.id}`);
  };
  return (
    <section aria-label="New bar" className="grid gap-1">
      <form
        className="flex flex-wrap items-end gap-x-3 gap-y-1"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) void start('plain', name.trim());
          else setFaults([{ path: 'name', message: 'Give the bar a name, or choose what it is for.' }]);
        }}
      >
        <label>
          <span className="eyebrow block">A new bar</span>
          <input
            className="field w-44"
            value={name}
            placeholder="its name"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <button type="submit" className="action" disabled={busy}>
          <Plus size={16} aria-hidden="true" /> Start
        </button>
        <span role="group" aria-label="By its purpose" className="flex flex-wrap items-baseline gap-x-3">
          <span className="eyebrow">or by its purpose</span>
          {PURPOSES.map((purpose) => (
            <button
              key={purpose}
              type="button"
              className="min-h-6 cursor-pointer text-ultra underline"
              title={PURPOSE[purpose].reasons.join(' ')}
              disabled={busy}
              onClick={() => void start(purpose, name.trim() || PURPOSE[purpose].name)}
            >
              {PURPOSE[purpose].name}
            </button>
          ))}
          <button
            type="button"
            className="min-h-6 cursor-pointer text-ultra underline"
            aria-expanded={asked !== null}
            onClick={() => setAsked(asked === null ? '' : null)}
          >
            from a recipe as text
          </button>
        </span>
      </form>
      <Faults faults={faults} />
      {asked !== null && <RecipeText key={asked} first={asked} name={name} />}
    </section>
  );
}

export const NewBar = guarded('The new bar', NewBarIsland);
