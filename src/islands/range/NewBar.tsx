import { Plus } from 'lucide-react';
import { useState, type FormEvent } from 'react';

/** Starts a bar by its name and goes to its worktable. */
export function NewBar() {
  const [name, setName] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const start = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setFault(null);
    try {
      const answer = await fetch('/api/v1/products', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name }),
      });
      const body = (await answer.json()) as { id?: string; errors?: { message: string }[] };
      if (body.id) {
        location.assign(`/bars/${body.id}`);
        return;
      }
      setFault(body.errors?.[0]?.message ?? 'The bar was not started.');
    } catch {
      setFault('The application does not answer. Try again.');
    }
    setBusy(false);
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
