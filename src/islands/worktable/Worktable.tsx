import { Columns2, Printer, Tag } from 'lucide-react';
import { useCallback, useEffect, useMemo, useReducer, useState } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import type { School } from '../../core/formula/answer';
import type { Formula, Material } from '../../core/formula/types';
import type { Remedy } from '../../core/loads/remedies';
import type { WorkingVersion, WorktableData } from '../../core/records/product';
import { address } from '../../ui/api';
import {
  historyReducer,
  keepSteps,
  recallSteps,
  startHistory,
  useUndoKeys,
  type History,
} from '../../ui/history';
import { FindMaterial } from '../../ui/FindMaterial';
import { SaveLine } from '../../ui/SaveLine';
import { UndoButtons } from '../../ui/UndoButtons';
import { useSaving, type OnFile } from '../../ui/saving';
import { BarPanel } from './BarPanel';
import { BatterSettings } from './BatterSettings';
import { TableContext, useTable, type Table } from './context';
import { addLine } from './edits';
import { BatterLines, Loads } from './Lines';
import { AdvicePanel, ListPanel, NotesPanel, VerdictPanel } from './Outcome';
import { OutlookPanel } from './OutlookPanel';
import { PortionsPanel } from './Portions';
import { useReckoning } from './reckoning';
import { RemediesPanel } from './Remedies';
import { SizePanel } from './SizePanel';
import { VersionsPanel } from './VersionsPanel';
import { WhatIfPanel } from './WhatIf';

function onFile({ revision, savedAt, formula }: WorkingVersion): OnFile<Formula> {
  return { revision, savedAt, value: formula };
}

const writeFormula = (revision: number, formula: Formula) => ({ revision, formula });
const readSaved = (body: unknown) => {
  const { version, stale } = body as { version?: WorkingVersion; stale?: WorkingVersion };
  return stale ? { stale: onFile(stale) } : { saved: onFile(version!) };
};

/** The formula on the table with its steps back and forth, which outlast a reload. */
function useFormula({ product, version }: WorktableData) {
  const [history, dispatch] = useReducer(historyReducer<Formula>, version.formula, startHistory<Formula>);
  const key = `worktable:${product.id}`;
  useUndoKeys(dispatch);
  useEffect(() => {
    const kept = recallSteps<Formula>(key, version.revision);
    if (kept) dispatch({ type: 'restore', history: { ...startHistory(version.formula), ...kept } });
  }, [key, version]);
  const change = useCallback(
    (next: Formula, step: string) => dispatch({ type: 'change', value: next, key: step, at: Date.now() }),
    [],
  );
  return { history, dispatch, change, key };
}

/** Fields that cannot be read at the moment. */
function useUnread() {
  const [unread, setFields] = useState<Record<string, string>>({});
  const setUnread = useCallback(
    (field: string, message: string | null) =>
      setFields((all) => {
        const { [field]: before, ...rest } = all;
        if (message === null) return before === undefined ? all : rest;
        return { ...rest, [field]: message };
      }),
    [],
  );
  return { readable: Object.keys(unread).length === 0, setUnread };
}

/** Finds the field of a line that was just added and puts the hands on it. */
function focusAmount(lineName: string) {
  setTimeout(() => {
    const fields = document.querySelectorAll<HTMLInputElement>(
      `input[aria-label="Amount of ${CSS.escape(lineName)}"]`,
    );
    const field = fields[fields.length - 1];
    field?.focus();
    field?.select();
  }, 60);
}

interface ToolsProps {
  history: History<Formula>;
  dispatch: (action: { type: 'undo' | 'redo' }) => void;
}

function Tools({ history, dispatch }: ToolsProps) {
  const { data } = useTable();
  const { id } = data.product;
  return (
    <>
      <UndoButtons history={history} dispatch={dispatch} />
      <a className="action" href={`/compare?left=${encodeURIComponent(id)}`}>
        <Columns2 size={16} aria-hidden="true" /> Compare
      </a>
      <a className="action" href={`/wrap/${encodeURIComponent(id)}`}>
        <Tag size={16} aria-hidden="true" /> Wrap
      </a>
      <a className="action" href={`/bars/${encodeURIComponent(id)}/sheet`}>
        <Printer size={16} aria-hidden="true" /> Sheet
      </a>
    </>
  );
}

/** What is wrong with the formula as a whole; line faults stand at their lines. */
function GeneralFaults() {
  const { errors } = useTable();
  const general = errors.filter(({ path }) => !/^formula\.lines\.\d/.test(path));
  if (general.length === 0) return null;
  return (
    <div role="alert" className="mb-2 border-l-4 border-madder bg-wash px-3 py-1.5">
      {general.map((error) => (
        <p key={error.code}>{error.message} The last good reckoning stays below.</p>
      ))}
    </div>
  );
}

interface SideProps {
  remedies: readonly Remedy[];
  onKept: (version: WorkingVersion) => void;
}

/** What the formula leads to; the rest a tab away. */
function Side({ remedies, onKept }: SideProps) {
  const { data } = useTable();
  const [market, setMarket] = useState(data.product.markets[0]!);
  const [school, setSchool] = useState<School>('added');
  return (
    <Tabs className="side-tabs">
      <TabList aria-label="What the formula leads to" className="tab-list">
        <Tab id="leads">Leads to</Tab>
        <Tab id="outlook">Outlook</Tab>
        <Tab id="whatif">What if</Tab>
        <Tab id="size">Size</Tab>
        <Tab id="versions">Versions</Tab>
        <Tab id="bar">Bar</Tab>
      </TabList>
      <TabPanel id="leads">
        <RemediesPanel remedies={remedies} />
        <ListPanel market={market} school={school} onMarket={setMarket} onSchool={setSchool} />
        <NotesPanel />
        <AdvicePanel />
      </TabPanel>
      <TabPanel id="outlook">
        <OutlookPanel />
      </TabPanel>
      <TabPanel id="whatif">
        <WhatIfPanel />
      </TabPanel>
      <TabPanel id="size">
        <SizePanel />
      </TabPanel>
      <TabPanel id="versions">
        <VersionsPanel onKept={onKept} />
      </TabPanel>
      <TabPanel id="bar">
        <BarPanel />
      </TabPanel>
    </Tabs>
  );
}

/** The materials on the table: those of the formula and its alternatives, and what is added to it. */
function useMaterials(data: WorktableData) {
  const [materials, setMaterials] = useState<Material[]>(() => [
    ...data.materials,
    ...data.alternatives.filter(({ id }) => !data.materials.some((material) => material.id === id)),
  ]);
  const byId = useMemo(() => new Map(materials.map((material) => [material.id, material])), [materials]);
  const material = useCallback((id: string) => byId.get(id), [byId]);
  const add = (found: Material) => {
    if (!byId.has(found.id)) setMaterials((all) => [...all, found]);
  };
  return { materials, material, add };
}

/** One bar: its lines by stage, its loads against their ceilings, and what they lead to. */
export function Worktable({ data }: { data: WorktableData }) {
  const { product, version } = data;
  const { history, dispatch, change, key } = useFormula(data);
  const formula = history.present;
  const { materials, material, add } = useMaterials(data);
  const [onDate, setOnDate] = useState(data.onDate);
  const { assessment, errors, remedies, reckon } = useReckoning(data, materials, formula, onDate);
  const { readable, setUnread } = useUnread();
  const [open, setOpen] = useState<readonly string[]>([]);
  const { save, revision, flush, currentRevision, moveTo, carryOnFrom } = useSaving<Formula>({
    url: address('products', product.id, 'formula'),
    loaded: useMemo(() => onFile(version), [version]),
    value: formula,
    savable: errors.length === 0 && readable,
    write: writeFormula,
    read: readSaved,
  });
  useEffect(() => {
    if (save.state === 'saved') keepSteps(key, revision, history);
  }, [key, save, revision, history]);
  if (!assessment) {
    return (
      <div role="alert" className="p-6">
        {errors.map((error) => (
          <p key={error.path + error.code}>{error.message}</p>
        ))}
      </div>
    );
  }
  const carryOn = (takeTheirs: boolean) => {
    if (save.state !== 'stale') return;
    if (takeTheirs) change(save.newer.value, 'theirs');
    carryOnFrom(save.newer);
  };
  const table: Table = {
    data,
    formula,
    assessment,
    errors,
    onDate,
    reckon,
    material,
    materialName: (id) => material(id)?.name ?? id,
    change,
    flush: async () => ((await flush()) ? currentRevision() : null),
    setUnread,
    isOpen: (id) => open.includes(id),
    toggle: (id) => setOpen((all) => (all.includes(id) ? all.filter((other) => other !== id) : [...all, id])),
  };
  return (
    <TableContext.Provider value={table}>
      <div className="px-6 py-3">
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-2">
          <h1 className="text-2xl">{product.name}</h1>
          <span className="text-soft">{product.note}</span>
          <div className="ml-auto flex items-center gap-2">
            <SaveLine
              what="This bar"
              save={save}
              onTakeTheirs={() => carryOn(true)}
              onKeepMine={() => carryOn(false)}
            />
            <Tools history={history} dispatch={dispatch} />
          </div>
        </div>
        <GeneralFaults />
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_27rem]">
          <div>
            <Loads />
            <FindMaterial
              label="Add a material"
              onFound={({ material: found }) => {
                add(found);
                change(addLine(formula, found).formula, `add ${Date.now()}`);
                focusAmount(found.name);
              }}
            />
            <section aria-label="Batter" className="sheet mt-3">
              <BatterLines />
              <BatterSettings />
            </section>
            <PortionsPanel />
          </div>
          <div>
            <VerdictPanel onOnDate={setOnDate} isOld={errors.length > 0 || !readable} />
            <Side remedies={readable ? remedies : []} onKept={({ revision: kept }) => moveTo(kept)} />
          </div>
        </div>
      </div>
    </TableContext.Provider>
  );
}
