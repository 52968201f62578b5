import { guarded } from '../../ui/Guarded';
import { Plus } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { useKeeping } from '../../ui/keeping';

/** Starts a bar by its name and goes to its worktable. */
function NewBarIsland() {
  const [name, setName] = useState('');
  const { busy, faults, keep } = useKeeping();
  const fault = faults[0]?.message ?? null;

  const start = async (event: FormEvent) => {
    event.preventDefault();
    const made = await keep((key) => send<Product>('POST', address('products'), { name }, key));
    if (made) location.assign(`/bars/${made.id}`);
  };

  return (
    <form className="flex flex-wrap items-baseline gap-3" onSubmit={(event) => void start(event)}>
      <label className="font-medium" htmlFor="new-bar">
        A new bar
      </label>
      <input
        id="new-bar"
        className="field w-56"
        placeholder="its name"
        value={name}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? 'new-bar-fault' : undefined}
        onChange={(event) => setName(event.target.value)}
      />
      <button type="submit" className="action" disabled={busy}>
        <Plus size={16} aria-hidden="true" /> Start
      </button>
      {fault && (
        <p id="new-bar-fault" role="alert" className="text-madder">
          {fault}
        </p>
      )}
    </form>
  );
}

export const NewBar = guarded('The new bar', NewBarIsland);
