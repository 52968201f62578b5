import { guarded } from '../../ui/Guarded';
import { Plus } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { KINDS, type Kind } from '../../core/formula/types';
import type { CraftLimit } from '../../rulebook/types';
import type { CraftFigures, CupboardEntry } from '../../core/records/cupboard';
import { ONE_OF_KIND_WORDS, stock } from '../../ui/words';
import { CraftFiguresPanel } from './CraftFigures';
import { MaterialPanel } from './MaterialPanel';
import { NewMaterial } from './NewMaterial';
import { signsOf, stockOf } from './standing';

export interface CupboardData {
  entries: CupboardEntry[];
  craft: readonly CraftLimit[];
  ownFigures: CraftFigures;
  today: string;
  currency: string;
}

interface RowProps {
  entry: CupboardEntry;
  today: string;
  isChosen: boolean;
  onChoose: () => void;
}

function Row({ entry, today, isChosen, onChoose }: RowProps) {
  const { material, supplier, lots, usedIn } = entry;
  const signs = signsOf(entry, today);
  const row = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (isChosen) row.current?.scrollIntoView({ block: 'nearest' });
  }, [isChosen]);
  return (
    <li>
      <button
        ref={row}
        type="button"
        className="shelf-row"
        aria-current={isChosen ? 'true' : undefined}
        onClick={onChoose}
      >
        <span className="font-medium">{material.name}</span>
        <span className="text-soft">{entry.mix ? 'Mix' : ONE_OF_KIND_WORDS[material.kind]}</span>
        <span className="truncate text-soft">{supplier ?? 'own'}</span>
        <span className="text-right tabular-nums">{lots.length > 0 ? stock(stockOf(lots)) : ''}</span>
        <span className="text-right tabular-nums">{usedIn || ''}</span>
        <span className={signs.some(({ grave }) => grave) ? 'font-medium' : 'text-soft'}>
          {signs.map(({ short }) => short).join(', ')}
        </span>
      </button>
    </li>
  );
}

/** Which material is looked at; kept in the address, so that it outlasts a reload and can be linked. */
function useChosen(entries: readonly CupboardEntry[]) {
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => setChosen(new URLSearchParams(location.search).get('material')), []);
  const choose = (id: string | null) => {
    setChosen(id);
    const query = id === null ? location.pathname : `?material=${encodeURIComponent(id)}`;
    window.history.replaceState(null, '', query);
  };
  return { entry: entries.find(({ material }) => material.id === chosen) ?? null, choose };
}

/** Every material with what is known of it, from whom, how old, in which lots, and what uses it. */
function CupboardIsland({ data }: { data: CupboardData }) {
  const [entries, setEntries] = useState(data.entries);
  const [text, setText] = useState('');
  const [kind, setKind] = useState<Kind | 'mix' | ''>('');
  const [isMaking, setMaking] = useState(false);
  const { entry, choose } = useChosen(entries);
  const shown = useMemo(() => {
    const typed = text.trim().toLowerCase();
    return entries.filter(({ material, supplier, mix }) => {
      const isKind = kind === '' || (kind === 'mix' ? mix !== null : !mix && material.kind === kind);
      const words = [material.name, supplier ?? '', ...(material.inci ?? []).map(({ name }) => name)];
      return isKind && words.some((word) => word.toLowerCase().includes(typed));
    });
  }, [entries, text, kind]);
  const changed = (next: CupboardEntry) =>
    setEntries((all) =>
      [...all.filter(({ material }) => material.id !== next.material.id), next].sort((a, b) =>
        a.material.name.localeCompare(b.material.name),
      ),
    );
  const step = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    const at = shown.findIndex(({ material }) => material.id === entry?.material.id);
    const next = shown[Math.min(shown.length - 1, Math.max(0, at + by))];
    if (next) choose(next.material.id);
  };
  const kinds = KINDS.filter((one) => entries.some(({ material, mix }) => !mix && material.kind === one));
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_34rem]">
      <section aria-label="Materials" className="sheet">
        <div className="flex flex-wrap items-end gap-4 pb-1">
          <label>
            <span className="eyebrow block">Find</span>
            <input
              className="field w-56"
              value={text}
              placeholder="name, supplier, ingredient"
              onChange={(event) => setText(event.target.value)}
              onKeyDown={step}
            />
          </label>
          <label>
            <span className="eyebrow block">Kind</span>
            <select
              className="field"
              value={kind}
              onChange={(event) => setKind(event.target.value as typeof kind)}
            >
              <option value="">all</option>
              {kinds.map((one) => (
                <option key={one} value={one}>
                  {ONE_OF_KIND_WORDS[one]}
                </option>
              ))}
              <option value="mix">Mix</option>
            </select>
          </label>
          <button type="button" className="action ml-auto" onClick={() => setMaking(true)}>
            <Plus size={16} aria-hidden="true" /> A material or mix
          </button>
        </div>
        <div className="shelf-row shelf-head" aria-hidden="true">
          <span>Name</span>
          <span>Kind</span>
          <span>From</span>
          <span className="text-right">In stock</span>
          <span className="text-right">Bars</span>
          <span>To mind</span>
        </div>
        <ul className="shelf" onKeyDown={step}>
          {shown.map((one) => (
            <Row
              key={one.material.id}
              entry={one}
              today={data.today}
              isChosen={one === entry}
              onChoose={() => choose(one.material.id)}
            />
          ))}
        </ul>
        {shown.length === 0 && <p className="py-2 text-soft">Nothing by that name in the cupboard.</p>}
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
            today={data.today}
            currency={data.currency}
            onChanged={changed}
            onRemoved={() => {
              setEntries((all) => all.filter((one) => one !== entry));
              choose(null);
            }}
          />
        )}
        {!isMaking && !entry && (
          <>
            <p className="pb-3">
              Choose a material to see its papers, lots and the bars that use it. Papers that came in wait in
              the{' '}
              <a className="text-ultra underline" href="/cupboard/papers">
                paper tray
              </a>
              .
            </p>
            <CraftFiguresPanel craft={data.craft} own={data.ownFigures} />
          </>
        )}
      </div>
    </div>
  );
}

export const Cupboard = guarded('The cupboard', CupboardIsland);
