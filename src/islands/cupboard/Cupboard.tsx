import { guarded } from '../../ui/Guarded';
import { Plus } from 'lucide-react';
import { useCallback, useMemo, useState, type KeyboardEvent } from 'react';
import { KINDS, type Kind } from '../../core/formula/types';
import type { PeroxideCondition } from '../../core/scent/storage';
import type { CraftLimit } from '../../rulebook/types';
import type { CraftFigures, CupboardEntry } from '../../core/records/cupboard';
import { useQueryParam } from '../../ui/query-param';
import { Select } from '../../ui/Select';
import { ONE_OF_KIND_WORDS } from '../../ui/words';
import { CraftFiguresPanel } from './CraftFigures';
import { MaterialPanel } from './MaterialPanel';
import { NewMaterial } from './NewMaterial';
import { Shelf } from './Shelf';

export interface CupboardData {
  entries: CupboardEntry[];
  craft: readonly CraftLimit[];
  ownFigures: CraftFigures;
  today: string;
  peroxides: readonly PeroxideCondition[];
  currency: string;
}

type KindChoice = Kind | 'mix' | '';

/** The materials, by name, and those that a search leaves. */
function useShelf(loaded: CupboardEntry[]) {
  const [entries, setEntries] = useState(loaded);
  const [text, setText] = useState('');
  const [kind, setKind] = useState<KindChoice>('');
  const shown = useMemo(() => {
    const typed = text.trim().toLowerCase();
    return entries.filter(({ material, supplier, mix }) => {
      const isKind = kind === '' || (kind === 'mix' ? mix !== null : !mix && material.kind === kind);
      const words = [material.name, supplier ?? '', ...(material.inci ?? []).map(({ name }) => name)];
      return isKind && words.some((word) => word.toLowerCase().includes(typed));
    });
  }, [entries, text, kind]);
  const changed = useCallback(
    (next: CupboardEntry) =>
      setEntries((all) =>
        [...all.filter(({ material }) => material.id !== next.material.id), next].sort((a, b) =>
          a.material.name.localeCompare(b.material.name),
        ),
      ),
    [],
  );
  const removed = useCallback(
    (gone: CupboardEntry) =>
      setEntries((all) => all.filter(({ material }) => material.id !== gone.material.id)),
    [],
  );
  return { entries, shown, text, setText, kind, setKind, changed, removed };
}

interface SearchProps {
  shelf: ReturnType<typeof useShelf>;
  onStep: (by: number) => void;
  onMake: () => void;
}

function Search({ shelf, onStep, onMake }: SearchProps) {
  const { entries, text, setText, kind, setKind } = shelf;
  const kinds = KINDS.filter((one) => entries.some(({ material, mix }) => !mix && material.kind === one));
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
  const shelf = useShelf(data.entries);
  const { entries, shown, changed, removed } = shelf;
  const [isMaking, setMaking] = useState(false);
  const [chosen, choose] = useQueryParam('material');
  const entry = entries.find(({ material }) => material.id === chosen);
  const step = (by: number) => {
    const at = shown.findIndex(({ material }) => material.id === chosen);
    const next = shown[Math.min(shown.length - 1, Math.max(0, at + by))];
    if (next) choose(next.material.id);
  };
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_34rem]">
      <section aria-label="Materials" className="sheet">
        <Search shelf={shelf} onStep={step} onMake={() => setMaking(true)} />
        <Shelf entries={shown} minding={data} chosen={chosen} onChoose={choose} />
      </section>
      <div>
        {isMaking && (
          <NewMaterial
            entries={entries}
            onMade={(made) => {
              changed(made);
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
            entries={entries}
            minding={data}
            currency={data.currency}
            onChanged={changed}
            onRemoved={() => {
              removed(entry);
              choose(null);
            }}
          />
        )}
        {!isMaking && !entry && <NothingChosen {...data} />}
      </div>
    </div>
  );
}

export const Cupboard = guarded('The cupboard', CupboardIsland);
