import { useState } from 'react';
import { KINDS, type Kind, type Material } from '../../core/formula/types';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { ONE_OF_KIND_WORDS } from '../../ui/words';

interface Draft {
  name: string;
  kind: Kind;
  supplier: string;
  /** One part a line: name, then its share where there are several. */
  inci: string;
  waterPct: string;
  naohPerGram: string;
  soapName: string;
  density: string;
  bulkDensity: string;
  /** The maker's own ceiling, percent of the fats. */
  ownMaxPct: string;
  /** One constituent a line: id or name, low, typical, high. */
  constituents: string;
}

const OWN_LIMIT = 'own-ceiling';
const text = (value: number | null | undefined) => (value == null ? '' : String(value));

function draftOf(material: Material | null, supplier: string | null): Draft {
  const own = material?.limits?.find(({ id }) => id === OWN_LIMIT);
  return {
    name: material?.name ?? '',
    kind: material?.kind ?? 'botanical',
    supplier: supplier ?? '',
    inci: (material?.inci ?? [])
      .map(({ name, sharePct }) => (sharePct === 100 ? name : `${name} ; ${sharePct}`))
      .join('\n'),
    waterPct: text(material?.waterPct),
    naohPerGram: text(material?.saponification?.naohPerGram),
    soapName: material?.saponification?.formedInci ?? '',
    density: text(material?.density),
    bulkDensity: text(material?.bulkDensity),
    ownMaxPct: text(own?.maxPct),
    constituents: (material?.constituents ?? [])
      .map(({ id, lowPct, typicalPct, highPct }) => `${id} ; ${lowPct} ; ${typicalPct} ; ${highPct}`)
      .join('\n'),
  };
}

const number = (value: string) => Number(value.trim().replace(',', '.') || NaN);
const numberOrNull = (value: string) => (value.trim() === '' ? null : number(value));
const rows = (value: string) =>
  value
    .split('\n')
    .map((line) => line.split(';').map((cell) => cell.trim()))
    .filter(([first]) => first);

function bodyOf(draft: Draft, before: Material | null): Omit<Material, 'id'> & { id?: string } {
  const role = /fragrance|essentialOil|isolate/.test(draft.kind)
    ? ('scent' as const)
    : ('ingredient' as const);
  const inci = rows(draft.inci).map(([name, share]) => {
    const known = before?.inci?.find((part) => part.name === name);
    return { role, ...known, name: name!, sharePct: share ? number(share) : 100 };
  });
  const others = (before?.limits ?? []).filter(({ id }) => id !== OWN_LIMIT);
  const own = numberOrNull(draft.ownMaxPct);
  const isFat = draft.kind === 'fat' || draft.kind === 'wax';
  return {
    name: draft.name,
    kind: draft.kind,
    inci,
    waterPct: numberOrNull(draft.waterPct) ?? 0,
    density: numberOrNull(draft.density),
    bulkDensity: numberOrNull(draft.bulkDensity),
    saponification: isFat
      ? {
          as: draft.kind === 'wax' ? 'wax' : 'triglyceride',
          ...before?.saponification,
          naohPerGram: number(draft.naohPerGram),
          formedInci: draft.soapName || null,
        }
      : null,
    constituents: rows(draft.constituents).map(([id, low, typical, high]) => ({
      id: id!.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
      lowPct: number(low ?? ''),
      typicalPct: number(typical ?? low ?? ''),
      highPct: number(high ?? typical ?? low ?? ''),
    })),
    limits:
      own === null || !before
        ? others
        : [
            ...others,
            {
              id: OWN_LIMIT,
              subject: { type: 'material', id: before.id },
              maxPct: own,
              basis: 'fats',
              force: 'craft',
              source: 'Your own ceiling',
            },
          ],
  };
}

interface Props {
  /** The material to change; left out for a new one. */
  entry?: CupboardEntry;
  onDone: (entry: CupboardEntry) => void;
}

/** States a material of the maker's own, or changes what is stated of one. */
export function MaterialForm({ entry, onDone }: Props) {
  const before = entry?.written ?? null;
  const [draft, setDraft] = useState(() => draftOf(before, entry?.supplier ?? null));
  const [revision, setRevision] = useState(entry?.revision ?? 0);
  const { busy, faults, keep } = useKeeping<{ stale: CupboardEntry }>(({ stale }) =>
    setRevision(stale.revision),
  );
  const set = (key: keyof Draft) => (value: string) => setDraft((all) => ({ ...all, [key]: value }));
  const change = async (written: Material, from: number) => {
    const body = { material: bodyOf(draft, written), supplier: draft.supplier || null, revision: from };
    const url = address('materials', written.id);
    const kept = await keep(() => send<{ entry: CupboardEntry }>('PUT', url, body));
    if (kept) onDone(kept.entry);
  };
  const keepIt = async () => {
    if (before) return change(before, revision);
    const body = { material: bodyOf(draft, null), supplier: draft.supplier || null };
    const made = await keep((key) => send<CupboardEntry>('POST', address('materials'), body, key));
    if (!made) return;
    // A new material's own ceiling speaks of it by the id it was just given.
    if (draft.ownMaxPct.trim() !== '') return change(made.written, made.revision);
    onDone(made);
  };
  const field = (key: keyof Draft, label: string, width: string, hint?: string) => (
    <label>
      <span className="eyebrow block">{label}</span>
      <input
        className={`field ${width}`}
        value={draft[key]}
        placeholder={hint}
        onChange={(event) => set(key)(event.target.value)}
      />
    </label>
  );
  const lines = (key: 'inci' | 'constituents', label: string, hint: string) => (
    <label className="block w-full">
      <span className="eyebrow block">{label}</span>
      <textarea
        className="field w-full border border-line"
        rows={key === 'inci' ? 2 : 3}
        value={draft[key]}
        placeholder={hint}
        onChange={(event) => set(key)(event.target.value)}
      />
    </label>
  );
  const isFat = draft.kind === 'fat' || draft.kind === 'wax';
  return (
    <form
      className="flex flex-wrap items-end gap-x-4 gap-y-2 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        void keepIt();
      }}
    >
      {field('name', 'Name', 'w-56')}
      <label>
        <span className="eyebrow block">Kind</span>
        <select className="field" value={draft.kind} onChange={(event) => set('kind')(event.target.value)}>
          {KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {ONE_OF_KIND_WORDS[kind]}
            </option>
          ))}
        </select>
      </label>
      {field('supplier', 'From', 'w-44')}
      {lines(
        'inci',
        'Ingredient names, one a line; with shares: name ; percent',
        'Avena Sativa (Oat) Kernel Flour',
      )}
      {field('waterPct', 'Water, %', 'w-16')}
      {field('density', 'g/mL in batter', 'w-20')}
      {field('bulkDensity', 'g/mL spooned', 'w-20')}
      {isFat && field('naohPerGram', 'Sodium hydroxide, g a gram', 'w-24', '0.135')}
      {isFat && field('soapName', 'Its soap is called', 'w-44', 'Sodium Olivate')}
      {lines(
        'constituents',
        'Constituents, one a line: name ; low ; typical ; high, percent',
        'linalool ; 20 ; 30 ; 40',
      )}
      {field('ownMaxPct', 'Your own ceiling, % of fats', 'w-20')}
      <button type="submit" className="action" disabled={busy}>
        Keep
      </button>
      <Faults faults={faults} named={(path) => path.replace(/^material\./, '')} />
    </form>
  );
}
