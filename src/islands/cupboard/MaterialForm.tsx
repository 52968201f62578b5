import { isFatty } from '../../core/formula/fats';
import type { Alkali } from '../../core/chemistry/saponification';
import { KINDS, type Material } from '../../core/formula/types';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { ChoiceIn, LinesIn, NumberIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { ONE_OF_KIND_WORDS } from '../../ui/words';
import { useRef } from 'react';
import { useWatch } from 'react-hook-form';
import { bodyOf, draftOf, fieldOf, type Draft } from './material-draft';

interface Props {
  /** The material to change; left out for a new one. */
  entry?: CupboardEntry;
  onDone: (entry: CupboardEntry) => void;
}

const KIND_OPTIONS = KINDS.map((kind) => [kind, ONE_OF_KIND_WORDS[kind]] as const);

/** Only fats and waxes take up lye. */
/** Milligrams of potassium hydroxide that the greediest fat takes up, and some more. */
const MOST_SAPONIFICATION = 400;
const ALKALI_WORDS: readonly (readonly [Alkali, string])[] = [
  ['NaOH', 'sodium hydroxide (NaOH), g or mg'],
  ['KOH', 'potassium hydroxide (KOH), g or mg'],
];

function FatFields() {
  const kind = useWatch<Draft, 'kind'>({ name: 'kind' });
  if (!isFatty({ kind })) return null;
  return (
    <>
      <NumberIn
        name="naohPerGram"
        label="Saponification value, for a gram"
        width="w-24"
        hint="0.135 or 135"
        least={0}
        most={MOST_SAPONIFICATION}
        isNeeded
      />
      <ChoiceIn name="alkali" label="It is of" options={ALKALI_WORDS} />
      <TextIn name="soapName" label="Its soap is called" hint="Sodium Olivate" />
    </>
  );
}

/** States a material of the maker's own, or changes what is stated of one. */
export function MaterialForm({ entry, onDone }: Props) {
  const before = entry?.written ?? null;
  const revision = useRef(entry?.revision ?? 0);
  const record = useRecordForm<Draft, { stale: CupboardEntry }>({
    defaults: draftOf(before, entry?.supplier ?? null),
    fieldOf,
    onStale: ({ stale }) => (revision.current = stale.revision),
  });
  const { busy, keep } = record.keeping;
  const change = async (draft: Draft, written: Material, from: number) => {
    const body = { material: bodyOf(draft, written), supplier: draft.supplier || null, revision: from };
    const url = address('materials', written.id);
    const kept = await keep(() => send<{ entry: CupboardEntry }>('PUT', url, body));
    if (kept) onDone(kept.entry);
  };
  const keepIt = async (draft: Draft) => {
    if (before) return change(draft, before, revision.current);
    const body = { material: bodyOf(draft, null), supplier: draft.supplier || null };
    const made = await keep((key) => send<CupboardEntry>('POST', address('materials'), body, key));
    if (!made) return;
    // A new material's own ceiling speaks of it by the id it was just given.
    if (draft.ownMaxPct.trim() !== '') return change(draft, made.written, made.revision);
    onDone(made);
  };
  return (
    <RecordFields
      record={record}
      onKeep={keepIt}
      label="The material"
      className="flex flex-wrap items-end gap-x-4 gap-y-2 py-2"
    >
      <TextIn name="name" label="Name" width="w-56" needed="Give it a name." />
      <ChoiceIn name="kind" label="Kind" options={KIND_OPTIONS} />
      <TextIn name="supplier" label="From" />
      <div className="w-full">
        <LinesIn
          name="inci"
          label="Ingredient names, one a line; with shares: name ; percent"
          hint="Avena Sativa (Oat) Kernel Flour"
          rows={2}
        />
      </div>
      <NumberIn name="waterPct" label="Water, %" width="w-16" least={0} most={100} />
      <NumberIn name="density" label="g/mL in batter" least={0.01} most={25} />
      <NumberIn name="bulkDensity" label="g/mL spooned" least={0.01} most={25} />
      <FatFields />
      <div className="w-full">
        <LinesIn
          name="constituents"
          label="Constituents, one a line: name ; low ; typical ; high, percent"
          hint="linalool ; 20 ; 30 ; 40"
          rows={3}
        />
      </div>
      <NumberIn name="ownMaxPct" label="Your own ceiling, % of fats" least={0} most={100} />
      <button type="submit" className="action" disabled={busy}>
        Keep
      </button>
    </RecordFields>
  );
}
