import { guarded } from '../../ui/Guarded';
import { Plus } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { KINDS, type Kind } from '../../core/formula/types';
import type { PeroxideCondition } from '../../core/scent/storage';
import type { CraftLimit } from '../../rulebook/types';
import type { CraftFigures, CupboardEntry, CupboardRow } from '../../core/records/cupboard';
import { rowOf } from '../../core/stock/signs';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useQueryParam } from '../../ui/query-param';
import { Select } from '../../ui/Select';
import { ONE_OF_KIND_WORDS } from '../../ui/words';
import { CraftFiguresPanel } from './CraftFigures';
import { MaterialPanel } from './MaterialPanel';
import { NewMaterial } from './NewMaterial';
import { Shelf } from './Shelf';

export interface CupboardData {
  rows: CupboardRow[];
  /** The material that the address asks for. */
  first: CupboardEntry | null;
  craft: readonly CraftLimit[];
  ownFigures: CraftFigures;
  today: string;
  peroxides: readonly PeroxideCondition[];
  currency: string;
  /** The maker's name; null where none is set. */
  maker: string | null;
}

type KindChoice = Kind | 'mix' | '';

const byName = (a: CupboardRow, b: CupboardRow) => a.name.localeCompare(b.name);

/** The materials, by name, and those that a search leaves. */
function useShelf(data: CupboardData) {
  const [rows, setRows] = useState(data.rows);
  const [text, setText] = useState('');
  const [kind, setKind] = useState<KindChoice>('');
  const shown = useMemo(() => {
    const typed = text.trim().toLowerCase();
    return rows.filter((row) => {
      const words = [row.name, row.supplier ?? '', ...row.inci];
      return (kind === '' || row.kind === kind) && words.some((word) => word.toLowerCase().includes(typed));
    });
  }, [rows, text, kind]);
  const changed = useCallback(
    (next: CupboardEntry) =>
      setRows((all) => [...all.filter(({ id }) => id !== next.material.id), rowOf(next, data)].sort(byName)),
    [data],
  );
  const removed = useCallback((gone: string) => setRows((all) => all.filter(({ id }) => id !== gone)), []);
  return { rows, shown, text, setText, kind, setKind, changed, removed };
}

/** The chosen material with all that is known of it, asked for when it is chosen. */
function useChosen(first: CupboardEntry | null, id: string | null) {
  const [entry, setEntry] = useState(first);
  const [faults, setFaults] = useState<Fault[]>([]);
  const here = entry?.material.id ?? null;
  useEffect(() => {
    if (id === null || id === here) return;
    let isWanted = true;
    void send<CupboardEntry>('GET', address('materials', id)).then((answer) => {
      if (!isWanted) return;
      setFaults(answer.ok ? [] : answer.faults);
      if (answer.ok) setEntry(answer.body);
    });
    return () => {
      isWanted = false;
    };
  }, [id, here]);
  return here === id ? { entry, setEntry, faults: [] } : { entry: null, setEntry, faults };
}

interface SearchProps {
  shelf: ReturnType<typeof useShelf>;
  onStep: (by: number) => void;
  onMake: () => void;
}

function Search({ shelf, onStep, onMake }: SearchProps) {
  const { rows, text, setText, kind, setKind } = shelf;
  const kinds = KINDS.filter((one) => rows.some((row) => row.kind === one));
  const options: (readonly [KindChoice, string])[] = [
    ['', 'all'],
    ...kinds.map((one) => [one, ONE_OF_KIND_WORDS[one]] as const),
    ['mix', 'Mix'],
  ];
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    onStep(by);
  };
  return (
    <div className="flex flex-wrap items-end gap-4 pb-1">
      <label>
        <span className="eyebrow block">Find</span>
        <input
          className="field w-56"
          value={text}
          placeholder="name, supplier, ingredient"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={onKey}
        />
      </label>
      <Select label="Kind" value={kind} options={options} onChange={setKind} />
      <button type="button" className="action ml-auto" onClick={onMake}>
        <Plus size={16} aria-hidden="true" /> A material or mix
      </button>
    </div>
  );
}

function NothingChosen({ craft, ownFigures }: CupboardData) {
  return (
    <>
      <p className="pb-3">
        Choose a material to see its papers, lots and the bars that use it. Papers that came in wait in the{' '}
        <a className="text-ultra underline" href="/cupboard/papers">
          paper tray
        </a>
        .
      </p>
      <CraftFiguresPanel craft={craft} own={ownFigures} />
    </>
  );
}

/** Every material with what is known of it, from whom, how old, in which lots, and what uses it. */
function CupboardIsland({ data }: { data: CupboardData }) {
  const shelf = useShelf(data);
  const { rows, shown, changed, removed } = shelf;
  const [isMaking, setMaking] = useState(false);
  const [chosen, choose] = useQueryParam('material');
  const { entry, setEntry, faults } = useChosen(data.first, chosen);
  const onChanged = (next: CupboardEntry) => {
    changed(next);
    setEntry(next);
  };
  const step = (by: number) => {
    const at = shown.findIndex(({ id }) => id === chosen);
    const next = shown[Math.min(shown.length - 1, Math.max(0, at + by))];
    if (next) choose(next.id);
  };
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_34rem]">
      <section aria-label="Materials" className="sheet">
        <Search shelf={shelf} onStep={step} onMake={() => setMaking(true)} />
        <Shelf rows={shown} chosen={chosen} onChoose={choose} />
      </section>
      <div>
        <Faults faults={faults} />
        {isMaking && (
          <NewMaterial
            rows={rows}
            onMade={(made) => {
              onChanged(made);
              setMaking(false);
              choose(made.material.id);
            }}
            onClose={() => setMaking(false)}
          />
        )}
        {!isMaking && entry && (
          <MaterialPanel
            key={entry.material.id}
            entry={entry}
            rows={rows}
            minding={data}
            currency={data.currency}
            maker={data.maker}
            onChanged={onChanged}
            onRemoved={() => {
              removed(entry.material.id);
              choose(null);
            }}
          />
        )}
        {!isMaking && !entry && !rows.some(({ id }) => id === chosen) && <NothingChosen {...data} />}
      </div>
    </div>
  );
}

export const Cupboard = guarded('The cupboard', CupboardIsland);
