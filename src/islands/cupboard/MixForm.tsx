import { Trash2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { mixMaterial, type MixPart } from '../../core/formula/mix';
import type { Material } from '../../core/formula/types';
import type { CupboardEntry, CupboardRow } from '../../core/records/cupboard';
import { readNumber } from '../../core/quantities/number';
import { address, send } from '../../ui/api';
import { NumberIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { ONE_OF_KIND_WORDS, percent } from '../../ui/words';

interface Props {
  /** The cupboard, to choose parts from. */
  rows: readonly CupboardRow[];
  /** The mix to change; left out for a new one. */
  entry?: CupboardEntry;
  onDone: (entry: CupboardEntry) => void;
}

interface Draft {
  name: string;
  parts: { material: string; parts: string }[];
}

const MOST_PARTS = 100_000;

const draftOf = (entry: CupboardEntry | undefined): Draft => ({
  name: entry?.material.name ?? '',
  parts: (entry?.mix ?? []).map(({ material, parts }) => ({ material, parts: String(parts) })),
});
const partsOf = (draft: Draft): MixPart[] =>
  draft.parts.map(({ material, parts }) => ({ material, parts: readNumber(parts) }));

type PartsProps = Pick<Props, 'rows'> & { own: string | undefined };

/** The parts as materials, those that are here already; each is asked for when it is chosen. */
function useMaterials(ids: readonly string[]): ReadonlyMap<string, Material> {
  const [known, setKnown] = useState<ReadonlyMap<string, Material>>(new Map());
  const missing = ids.filter((id) => !known.has(id)).join(' ');
  useEffect(() => {
    let isHere = true;
    for (const id of missing.split(' ').filter(Boolean))
      void send<CupboardEntry>('GET', address('materials', id)).then((answer) => {
        if (isHere && answer.ok) setKnown((all) => new Map(all).set(id, answer.body.material));
      });
    return () => {
      isHere = false;
    };
  }, [missing]);
  return known;
}

function Parts({ rows, own }: PartsProps) {
  const { control } = useFormContext<Draft>();
  const { append, remove } = useFieldArray<Draft, 'parts'>({ control, name: 'parts' });
  const parts = useWatch<Draft, 'parts'>({ name: 'parts' });
  const names = useMemo(() => new Map(rows.map(({ id, name }) => [id, name])), [rows]);
  const nameOf = (id: string) => names.get(id) ?? id;
  const figures = parts.map((part) => readNumber(part.parts));
  const total = figures.reduce((sum, one) => sum + (Number.isFinite(one) ? one : 0), 0);
  const free = rows.filter(({ id }) => id !== own && !parts.some(({ material }) => material === id));
  return (
    <>
      <ul className="mt-2">
        {parts.map(({ material }, index) => (
          <li key={material} className="flex items-end gap-3 border-b border-hair py-0.5">
            <NumberIn
              name={`parts.${index}.parts`}
              label={`Parts of ${nameOf(material)}`}
              width="w-56"
              least={0}
              most={MOST_PARTS}
              isNeeded
            />
            <span className="font-narrow text-soft tabular-nums">
              {total > 0 && Number.isFinite(figures[index]!) ? percent((100 * figures[index]!) / total) : ''}
            </span>
            <button
              type="button"
              className="icon-action ml-auto"
              aria-label={`Leave out ${nameOf(material)}`}
              onClick={() => remove(index)}
            >
              <Trash2 size={15} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <label className="mt-2 block">
        <span className="eyebrow block">Add a part</span>
        <select
          className="field w-64"
          value=""
          onChange={(event) => append({ material: event.target.value, parts: '1' })}
        >
          <option value="">choose from the cupboard</option>
          {free.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

/** What the mix would stand for in a formula, or why it cannot be made. */
function Preview({ own }: Pick<PartsProps, 'own'>) {
  const draft = useWatch<Draft>() as Draft;
  const known = useMaterials(draft.parts.map(({ material }) => material));
  if (draft.parts.length === 0) return null;
  // Its line is there before it is known: what comes later moves no button from under the hand.
  if (!draft.parts.every(({ material }) => known.has(material))) return <p className="mt-1">&nbsp;</p>;
  const mixed = mixMaterial({ id: own ?? '?', name: draft.name, parts: partsOf(draft) }, (id) =>
    known.get(id),
  );
  if (!mixed.ok) return <p className="mt-1 text-madder">{mixed.errors[0]!.message}</p>;
  return (
    <p className="mt-1 text-soft">
      Stands in a formula as: {ONE_OF_KIND_WORDS[mixed.material.kind].toLowerCase()}.
    </p>
  );
}

/** A material made of materials: a blend, an oil with a plant steeped in it, brine, a premix. */
export function MixForm({ rows, entry, onDone }: Props) {
  const revision = useRef(entry?.revision ?? 0);
  const record = useRecordForm<Draft, { stale: CupboardEntry }>({
    defaults: draftOf(entry),
    onStale: ({ stale }) => (revision.current = stale.revision),
  });
  const { busy, keep } = record.keeping;
  const own = entry?.material.id;
  const keepIt = async (draft: Draft) => {
    const body = { name: draft.name, parts: partsOf(draft) };
    if (own === undefined) {
      const made = await keep((key) => send<CupboardEntry>('POST', address('mixes'), body, key));
      if (made) onDone(made);
      return;
    }
    const changed = { ...body, revision: revision.current };
    const kept = await keep(() => send<{ entry: CupboardEntry }>('PUT', address('mixes', own), changed));
    if (kept) onDone(kept.entry);
  };
  return (
    <RecordFields record={record} onKeep={keepIt} label="The mix" className="py-2">
      <TextIn name="name" label="Name of the mix" width="w-64" needed="Give it a name." />
      <Parts rows={rows} own={own} />
      <Preview own={own} />
      <button type="submit" className="action mt-2" disabled={busy}>
        Keep
      </button>
    </RecordFields>
  );
}
