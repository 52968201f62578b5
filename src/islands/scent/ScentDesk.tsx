import { guarded } from '../../ui/Guarded';
import { Plus } from 'lucide-react';
import { useEffect, useMemo, useReducer, useState } from 'react';
import type { MixPart } from '../../core/formula/mix';
import type { CupboardEntry, Use, Uses } from '../../core/records/cupboard';
import { PLAIN_BAR, type BlendRow, type ScentDeskData, type TryBar } from '../../core/records/scent';
import { address, send, type Fault } from '../../ui/api';
import { useBarsUsing } from '../../ui/BarsUsing';
import { Faults } from '../../ui/Faults';
import { TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { useQueryParam } from '../../ui/query-param';
import { historyReducer, startHistory, useUndoKeys } from '../../ui/history';
import { SaveLine } from '../../ui/SaveLine';
import { UndoButtons } from '../../ui/UndoButtons';
import { useSaving, type OnFile } from '../../ui/saving';
import { newStep } from '../../ui/step';
import { BlendOutcome } from './BlendOutcome';
import { BlendParts } from './BlendParts';
import { benchFrom, tryBlend } from './reckoning';
import { SendToBar } from './SendToBar';
import { useKnownParts, useScents, type Scents } from './scents';
import { FewerNames } from './FewerNames';
import { RangeNames } from './RangeNames';
import { daysOfChange } from '../worktable/trial';
import { SolverPanel } from './SolverPanel';

/** A blend as it lies on the desk. */
interface Blend {
  name: string;
  parts: MixPart[];
}

const START_TOTAL_PCT = 2;
const NO_SCENTS = { path: '', message: 'The cupboard holds no scents yet. Put one in first.' };

function onFile(entry: CupboardEntry): OnFile<Blend> {
  return {
    revision: entry.revision,
    savedAt: '',
    value: { name: entry.material.name, parts: entry.mix ?? [] },
  };
}
const writeBlend = (revision: number, { name, parts }: Blend) => ({ revision, name, parts });
const readBlend = (body: unknown) => {
  const { entry, stale } = body as { entry?: CupboardEntry; stale?: CupboardEntry };
  return stale ? { stale: onFile(stale) } : { saved: onFile(entry!) };
};

/** The bar a blend is tried in: the chosen one, else the first that uses it, else the plain one; null until it is there. */
function useTryBar(data: ScentDeskData, uses: Uses | null) {
  const [chosen, setBarId] = useState<string | null>(null);
  const wanted = uses && (chosen ?? uses.some[0]?.product ?? PLAIN_BAR);
  const [asked, setAsked] = useState<TryBar | null>(null);
  useEffect(() => {
    let isWanted = true;
    if (wanted === null || wanted === PLAIN_BAR) return;
    void send<TryBar>('GET', address('products', wanted, 'trial')).then((answer) => {
      if (isWanted && answer.ok) setAsked(answer.body);
    });
    return () => {
      isWanted = false;
    };
  }, [wanted]);
  // Until the bar asked for is there, the one before it stays.
  return { bar: wanted === PLAIN_BAR ? data.first : asked, setBarId };
}

interface DeskProps {
  data: ScentDeskData;
  scents: Scents;
  entry: CupboardEntry;
}

/** One blend: its parts, what they bring, how far it goes, and the nearest that fits. */
function Desk({ data, scents, entry }: DeskProps) {
  const loaded = useMemo(() => onFile(entry), [entry]);
  const [history, dispatch] = useReducer(historyReducer<Blend>, loaded.value, startHistory<Blend>);
  useUndoKeys(dispatch);
  const blend = history.present;
  const change = (part: Partial<Blend>, key: string) =>
    dispatch({ type: 'change', value: { ...blend, ...part }, key, at: Date.now() });
  const saving = useSaving<Blend>({
    url: address('mixes', entry.material.id),
    loaded,
    value: blend,
    savable: blend.name.trim() !== '' && blend.parts.some(({ parts }) => parts > 0),
    write: writeBlend,
    read: readBlend,
  });
  const uses = useBarsUsing(entry.material.id);
  const { bar, setBarId } = useTryBar(data, uses);
  const settle = (takeTheirs: boolean) => {
    if (saving.save.state !== 'stale') return;
    const { newer } = saving.save;
    if (takeTheirs) change(newer.value, 'theirs');
    saving.carryOnFrom(newer);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pb-2">
        <input
          className="field w-72 font-display text-xl font-semibold"
          aria-label="Name of the blend"
          value={blend.name}
          onChange={(event) => change({ name: event.target.value }, 'name')}
        />
        <div className="ml-auto flex items-center gap-2">
          <SaveLine
            what="This blend"
            saving={saving}
            onTakeTheirs={() => settle(true)}
            onKeepMine={() => settle(false)}
            onTakeAside={(value) => change(value, 'aside')}
          />
          <UndoButtons history={history} dispatch={dispatch} />
        </div>
      </div>
      {bar ? (
        <Trying
          data={data}
          scents={scents}
          id={entry.material.id}
          parts={blend.parts}
          onParts={(parts, key) => change({ parts }, key)}
          bar={bar}
          onBar={setBarId}
          uses={uses?.some ?? []}
          flush={saving.flush}
        />
      ) : (
        <p role="status">Opening…</p>
      )}
    </>
  );
}

interface TryingProps {
  data: ScentDeskData;
  scents: Scents;
  /** Of the blend. */
  id: string;
  parts: MixPart[];
  onParts: (parts: MixPart[], key: string) => void;
  bar: TryBar;
  onBar: (id: string) => void;
  uses: readonly Use[];
  flush: () => Promise<boolean>;
}

/** A blend tried in a bar. */
function Trying({ data, scents, id, parts, onParts, bar, onBar, uses, flush }: TryingProps) {
  const [totalPct, setTotalPct] = useState(START_TOTAL_PCT);
  const known = useKnownParts(scents, parts);
  const bench = useMemo(
    () => benchFrom(data, scents.scents, bar.materials),
    [data, scents.scents, bar.materials],
  );
  const tried = useMemo(() => tryBlend(bench, bar, known, totalPct), [bench, bar, known, totalPct]);
  const named = useMemo(() => new Map(data.scents.map(({ id, name }) => [id, name])), [data.scents]);
  const nameOf = (one: string) => bench.material(one)?.name ?? named.get(one) ?? one;
  const shared = { bench, bar, parts: known, totalPct, nameOf };
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_25rem]">
      <div>
        <Faults faults={scents.faults} />
        <BlendParts
          data={data}
          parts={parts}
          tried={tried}
          nameOf={nameOf}
          bars={data.bars}
          barId={bar.id}
          totalPct={totalPct}
          onParts={onParts}
          onBar={onBar}
          onTotal={setTotalPct}
        />
        <BlendOutcome data={data} scents={scents.scents} tried={tried} {...shared} />
      </div>
      <div>
        <SolverPanel
          key={bar.id}
          {...shared}
          onTake={(solved, total) => {
            onParts(solved, newStep('solved'));
            setTotalPct(total);
          }}
        />
        <FewerNames
          key={bar.id}
          {...shared}
          onTake={(solved, total) => {
            onParts(solved, newStep('solved'));
            setTotalPct(total);
          }}
        />
        <SendToBar
          data={data}
          blend={{ id, parts }}
          uses={uses}
          totalPct={totalPct}
          barId={bar.id}
          flush={flush}
        />
      </div>
    </div>
  );
}

function NewBlend({ data, onMade }: { data: ScentDeskData; onMade: (entry: CupboardEntry) => void }) {
  const record = useRecordForm<{ name: string }>({ defaults: { name: '' } });
  const { busy, setFaults, keep } = record.keeping;
  const start = async ({ name }: { name: string }) => {
    const first = data.scents[0];
    if (!first) return setFaults([NO_SCENTS]);
    const parts = [{ material: first.id, parts: 1 }];
    const made = await keep((key) => send<CupboardEntry>('POST', address('mixes'), { name, parts }, key));
    if (!made) return;
    record.form.reset();
    onMade(made);
  };
  return (
    <RecordFields record={record} onKeep={start} label="A new blend" className="mt-2">
      <TextIn name="name" label="A new blend" width="w-full" hint="its name" />
      <button type="submit" className="action mt-1" disabled={busy}>
        <Plus size={16} aria-hidden="true" /> Start
      </button>
    </RecordFields>
  );
}

interface BlendsProps {
  blends: readonly BlendRow[];
  chosen: string | null;
  onChoose: (id: string) => void;
}

function Blends({ blends, chosen, onChoose }: BlendsProps) {
  return (
    <>
      <ul>
        {blends.map(({ id, name, usedIn }) => (
          <li key={id}>
            <button
              type="button"
              className="w-full cursor-pointer border-b border-hair py-1 text-left aria-[current=true]:font-semibold"
              aria-current={id === chosen ? 'true' : undefined}
              onClick={() => onChoose(id)}
            >
              {name}
              <span className="block font-narrow font-normal text-soft">
                {usedIn === 0 ? 'in no bar' : usedIn === 1 ? 'in one bar' : `in ${usedIn} bars`}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {blends.length === 0 && (
        <p className="text-soft">
          No blend yet. Give one a name; then add oils by parts and see what each of them brings.
        </p>
      )}
    </>
  );
}

const notBlend = (id: string): Fault => ({
  path: '',
  message: `"${id}" is no blend. Choose one of those here.`,
});

/** The blend that is looked at, asked for anew when another is chosen. */
function useOpened(data: ScentDeskData) {
  const [chosen, choose] = useQueryParam('blend');
  const [opened, setOpened] = useState(data.opened);
  const [faults, setFaults] = useState<Fault[]>([]);
  const here = opened?.material.id ?? null;
  const wanted = chosen ?? data.opened?.material.id ?? null;
  useEffect(() => {
    if (wanted === null || wanted === here) return;
    let isWanted = true;
    void send<CupboardEntry>('GET', address('materials', wanted)).then((answer) => {
      if (!isWanted) return;
      const isBlend = answer.ok && answer.body.mix !== null;
      if (isBlend) setOpened(answer.body);
      setFaults(isBlend ? [] : answer.ok ? [notBlend(wanted)] : answer.faults);
    });
    return () => {
      isWanted = false;
    };
  }, [wanted, here]);
  const open = (entry: CupboardEntry) => {
    setOpened(entry);
    choose(entry.material.id);
  };
  return { entry: here === wanted ? opened : null, wanted, faults, choose, open };
}

/** Blends of oils: what each brings, which constituent binds, how far the whole can go, the nearest that fits. */
function ScentDeskIsland({ data }: { data: ScentDeskData }) {
  const [blends, setBlends] = useState(data.blends);
  const { entry, wanted, faults, choose, open } = useOpened(data);
  const scents = useScents(data.known);
  return (
    <div className="grid gap-5 lg:grid-cols-[11.5rem_minmax(0,1fr)]">
      <section aria-label="Blends">
        <Blends blends={blends} chosen={wanted} onChoose={choose} />
        <NewBlend
          data={data}
          onMade={(made) => {
            const { id, name } = made.material;
            setBlends((all) => [...all, { id, name, usedIn: made.usedIn }]);
            open(made);
          }}
        />
      </section>
      <div>
        <Faults faults={faults} />
        {entry && <Desk key={entry.material.id} data={data} scents={scents} entry={entry} />}
        {wanted !== null && !entry && faults.length === 0 && <p role="status">Opening…</p>}
        <RangeNames today={data.onDate} days={daysOfChange(data.rules, data.onDate)} />
      </div>
    </div>
  );
}

export const ScentDesk = guarded('The scent desk', ScentDeskIsland);
