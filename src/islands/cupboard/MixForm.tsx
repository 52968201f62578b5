import { Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { mixMaterial, type MixPart } from '../../core/formula/mix';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { useKeeping } from '../../ui/keeping';
import { ONE_OF_KIND_WORDS, percent } from '../../ui/words';

interface Props {
  entries: readonly CupboardEntry[];
  /** The mix to change; left out for a new one. */
  entry?: CupboardEntry;
  onDone: (entry: CupboardEntry) => void;
}

/** A material made of materials: a blend, an oil with a plant steeped in it, brine, a premix. */
export function MixForm({ entries, entry, onDone }: Props) {
  const [name, setName] = useState(entry?.material.name ?? '');
  const [parts, setParts] = useState<MixPart[]>(entry?.mix ?? []);
  const [revision, setRevision] = useState(entry?.revision ?? 0);
  const { busy, faults, keep } = useKeeping<{ stale: CupboardEntry }>(({ stale }) =>
    setRevision(stale.revision),
  );
  const byId = useMemo(() => new Map(entries.map((one) => [one.material.id, one.material])), [entries]);
  const preview = useMemo(
    () => mixMaterial({ id: entry?.material.id ?? '?', name, parts }, (id) => byId.get(id)),
    [entry, name, parts, byId],
  );
  const total = parts.reduce((sum, part) => sum + part.parts, 0);
  const keepIt = async () => {
    const body = { name, parts };
    if (!entry) {
      const made = await keep((key) => send<CupboardEntry>('POST', address('mixes'), body, key));
      if (made) onDone(made);
      return;
    }
    const url = address('mixes', entry.material.id);
    const kept = await keep(() => send<{ entry: CupboardEntry }>('PUT', url, { ...body, revision }));
    if (kept) onDone(kept.entry);
  };
  return (
    <form
      className="py-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keepIt();
      }}
    >
      <label>
        <span className="eyebrow block">Name of the mix</span>
        <input className="field w-64" value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <ul className="mt-2">
        {parts.map((part, index) => {
          const partName = byId.get(part.material)?.name ?? part.material;
          return (
            <li key={part.material} className="flex items-baseline gap-3 border-b border-hair py-0.5">
              <span className="w-56">{partName}</span>
              <input
                className="field w-20 tabular-nums"
                aria-label={`Parts of ${partName}`}
                inputMode="decimal"
                defaultValue={part.parts}
                onChange={(event) => {
                  const value = Number(event.target.value.replace(',', '.'));
                  if (Number.isFinite(value) && value >= 0)
                    setParts((all) => all.map((one, at) => (at === index ? { ...one, parts: value } : one)));
                }}
              />
              <span className="font-narrow text-soft tabular-nums">
                {total > 0 ? percent((100 * part.parts) / total) : ''}
              </span>
              <button
                type="button"
                className="icon-action ml-auto"
                aria-label={`Leave out ${partName}`}
                onClick={() => setParts((all) => all.filter((_, at) => at !== index))}
              >
                <Trash2 size={15} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ul>
      <label className="mt-2 block">
        <span className="eyebrow block">Add a part</span>
        <select
          className="field w-64"
          value=""
          onChange={(event) => setParts((all) => [...all, { material: event.target.value, parts: 1 }])}
        >
          <option value="">choose from the cupboard</option>
          {entries
            .filter(({ material }) => material.id !== entry?.material.id)
            .filter(({ material }) => !parts.some((part) => part.material === material.id))
            .map(({ material }) => (
              <option key={material.id} value={material.id}>
                {material.name}
              </option>
            ))}
        </select>
      </label>
      {preview.ok && (
        <p className="mt-1 text-soft">
          Stands in a formula as: {ONE_OF_KIND_WORDS[preview.material.kind].toLowerCase()}.
        </p>
      )}
      <button type="submit" className="action mt-2" disabled={busy || parts.length === 0}>
        Keep
      </button>
      <p role="alert" className="text-madder">
        {faults[0]?.message ?? (!preview.ok && parts.length > 0 ? preview.errors[0]!.message : '')}
      </p>
    </form>
  );
}
