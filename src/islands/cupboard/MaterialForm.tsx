import { OwnSpoon } from './OwnSpoon';
import { isFatty } from '../../core/formula/fats';
import { naohOf, USUAL_NAOH, type Alkali } from '../../core/chemistry/saponification';
import { readNumber } from '../../core/quantities/number';
import { ORIGINS, type Concern } from '../../core/formula/traits';
import { KINDS, type Material } from '../../core/formula/types';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { FindMaterial } from '../../ui/FindMaterial';
import { ChoiceIn, LinesIn, NumberIn, TextIn, TickIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { ONE_OF_KIND_WORDS } from '../../ui/words';
import { useRef, useState } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { bodyOf, draftOf, fieldOf, likeThis, type Draft } from './material-draft';

interface Props {
  /** The material to change; left out for a new one. */
  entry?: CupboardEntry;
  onDone: (entry: CupboardEntry) => void;
}

const KIND_OPTIONS = KINDS.map((kind) => [kind, ONE_OF_KIND_WORDS[kind]] as const);

/** Milligrams of potassium hydroxide that the greediest fat takes up, and some more. */
const MOST_SAPONIFICATION = 400;
const ALKALI_WORDS: readonly (readonly [Alkali, string])[] = [
  ['NaOH', 'sodium hydroxide (NaOH), g or mg'],
  ['KOH', 'potassium hydroxide (KOH), g or mg'],
];

/** What the value comes to, since a wrong alkali or unit makes a wrong lye. */
function ComesTo() {
  const [value, alkali, kind] = useWatch<Draft, ['naohPerGram', 'alkali', 'kind']>({
    name: ['naohPerGram', 'alkali', 'kind'],
  });
  const naoh = alkali === '' ? NaN : naohOf(readNumber(value), alkali);
  if (!(naoh > 0)) return null;
  const isUsual = kind === 'wax' || (naoh >= USUAL_NAOH.least && naoh <= USUAL_NAOH.most);
  return (
    <p role="status" className={isUsual ? 'w-full text-soft' : 'w-full text-madder'}>
      Comes to {Number(naoh.toPrecision(3))} g of sodium hydroxide for a gram.
      {!isUsual && ` Fats take ${USUAL_NAOH.least} to ${USUAL_NAOH.most}: is the unit or the alkali another?`}
    </p>
  );
}

/** Only fats and waxes take up lye. */
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
      <ChoiceIn
        name="alkali"
        label="It is of"
        options={ALKALI_WORDS}
        needed="Say of which: 190 mg of KOH is 135 mg of NaOH."
      />
      <ComesTo />
      <TextIn name="soapName" label="Its soap is called" hint="Sodium Olivate" />
    </>
  );
}

const ORIGIN_OPTIONS = [['', 'not known'], ...ORIGINS.map((one) => [one, one] as const)] as const;
const KNOWN_OPTIONS = [
  ['', 'not known'],
  ['no', 'no'],
  ['yes', 'yes'],
] as const;
const CONCERN_OPTIONS: readonly (readonly [Concern, string])[] = [
  ['sun', 'sun'],
  ['cooling', 'cools'],
  ['pregnancy', 'pregnancy'],
  ['children', 'small children'],
  ['oxidises', 'takes up oxygen once open'],
];

/** Copies what a relative in the library or the cupboard does. */
function Like() {
  const { getValues, reset } = useFormContext<Draft>();
  const [of, setOf] = useState<string | null>(null);
  return (
    <div className="flex w-full flex-wrap items-baseline gap-3">
      <FindMaterial
        label="Like …"
        onFound={({ material }) => {
          reset(likeThis(getValues(), material), { keepDefaultValues: true });
          setOf(material.name);
        }}
      />
      <span role="status" className="text-soft">
        {of
          ? `Filled in like ${of}; its papers and limits are not taken over.`
          : 'a relative, whose ways are filled in below'}
      </span>
    </div>
  );
}

/** What it does in batter and bar; what nobody said counts as not known. */
function Ways() {
  const kind = useWatch<Draft, 'kind'>({ name: 'kind' });
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-ultra">How it behaves</summary>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2 py-1">
        <ChoiceIn name="speeds" label="Speeds the batter" options={KNOWN_OPTIONS} />
        <ChoiceIn name="rices" label="Rices" options={KNOWN_OPTIONS} />
        <ChoiceIn name="origin" label="Origin" options={ORIGIN_OPTIONS} />
        <TextIn name="colour" label="Its colour, and what becomes of it" hint="green, fades to brown" />
        <NumberIn name="grainUm" label="Largest grain, µm" least={0} most={20_000} />
        <NumberIn name="sugarPct" label="Sugar in it, %" least={0} most={100} />
        {kind === 'milk' && <NumberIn name="fatPct" label="Milk fat, %" least={0} most={100} />}
        {kind === 'acid' && (
          <NumberIn name="alkaliUptake" label="NaOH a gram takes up, g" least={0} most={3} />
        )}
        <div className="flex w-full flex-wrap gap-4">
          <TickIn name="sharp" label="sharp grains" />
          <TickIn name="stains" label="stains" />
          <TickIn name="swells" label="swells in water" />
          <TickIn name="drawsWater" label="draws damp" />
        </div>
        <fieldset className="flex w-full flex-wrap gap-4">
          <legend className="eyebrow">To be careful of</legend>
          {CONCERN_OPTIONS.map(([value, label]) => (
            <TickIn key={value} name="concerns" value={value} label={label} />
          ))}
        </fieldset>
        {isFatty({ kind }) && (
          <div className="w-full">
            <LinesIn
              name="fattyAcids"
              label="Fatty acids, one a line: name ; percent"
              hint="oleic ; 70"
              rows={3}
            />
          </div>
        )}
      </div>
    </details>
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
      {!before && <Like />}
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
      <TextIn name="numbers" label="CAS, EC or CI numbers" width="w-64" />
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
      <OwnSpoon />
      <Ways />
      <NumberIn name="ownMaxPct" label="Your own ceiling, % of fats" least={0} most={100} />
      <button type="submit" className="action" disabled={busy}>
        Keep
      </button>
    </RecordFields>
  );
}
