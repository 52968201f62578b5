import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useDeferredValue, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { assess } from '../../core/assess';
import type { Assessment, School } from '../../core/formula/answer';
import {
  REQUEST_FORMAT,
  STAGES,
  type AssessmentRequest,
  type Formula,
  type Material,
  type Stage,
} from '../../core/formula/types';
import { findRemedies } from '../../core/loads/remedies';
import type { WorktableData } from '../../server/services/products';
import { STAGE_WORDS } from '../../ui/words';
import { AddLine } from './AddLine';
import { TableContext, type Table } from './context';
import { addLine } from './edits';
import { historyReducer, keepSteps, recallSteps, startHistory } from './history';
import { LabelPanel } from './LabelPanel';
import { BaseRow, LoadRow } from './LineRow';
import { OutlookPanel } from './OutlookPanel';
import { AdvicePanel, ListPanel, NotesPanel, VerdictPanel } from './Outcome';
import { RemediesPanel } from './Remedies';
import { SaveLine } from './SaveLine';
import { useSaving } from './saving';
import { VersionsPanel } from './VersionsPanel';

const BASE_STAGES: readonly Stage[] = ['fats', 'liquid', 'heldBack'];
const LOAD_STAGES = STAGES.filter((stage) => !BASE_STAGES.includes(stage));

/** Reckons at every change; keeps the last good answer while what is on the table does not reckon. */
function useAssessment(data: WorktableData, materials: Material[], formula: Formula, onDate: string) {
  const lastGood = useRef<Assessment | null>(null);
  const stored = useMemo(() => ({ ...data.rules, material: () => undefined }), [data.rules]);
  const result = useMemo(() => {
    const { markets, firstPlacedOn } = data.product;
    const request: AssessmentRequest = {
      format: REQUEST_FORMAT,
      formula,
      materials,
      markets,
      onDate,
      firstPlacedOn,
      explain: true,
    };
    const answer = assess(request, stored);
    if (answer.ok) lastGood.current = answer.assessment;
    return { request, assessment: lastGood.current, errors: answer.ok ? [] : answer.errors };
  }, [data, materials, formula, stored, onDate]);
  // Remedies try many formulas; they follow a moment after the figures, never in the way of typing.
  const settled = useDeferredValue(result);
  const remedies = useMemo(
    () =>
      settled.assessment && settled.errors.length === 0
        ? findRemedies(settled.request, settled.assessment, stored, data.alternatives, assess)
        : [],
    [settled, stored, data.alternatives],
  );
  return { ...result, remedies: settled === result ? remedies : [] };
}

/** Undo and redo by the usual keys, also while a field has the focus. */
function useUndoKeys(dispatch: (action: { type: 'undo' | 'redo' }) => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      dispatch({ type: event.shiftKey ? 'redo' : 'undo' });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [dispatch]);
}

function StageList({ stage, table, Row }: { stage: Stage; table: Table; Row: typeof LoadRow }) {
  const known = new Set(table.assessment.lines.map(({ id }) => id));
  const lines = table.formula.lines.filter((line) => line.stage === stage && known.has(line.id));
  if (lines.length === 0) return null;
  return (
    <div>
      <h2 className="stage-head">{STAGE_WORDS[stage]}</h2>
      <ul>
        {lines.map((line) => (
          <Row key={line.id} line={line} />
        ))}
      </ul>
    </div>
  );
}

function Loads({ table }: { table: Table }) {
  const hasLoads = table.formula.lines.some(({ stage }) => LOAD_STAGES.includes(stage));
  return (
    <section aria-label="Loads" className="sheet">
      <div className="load-head" aria-hidden="true">
        <span>Load</span>
        <span>Amount</span>
        <span>Weighs</span>
        <span>Against its limit, the upright rule</span>
        <span>Room left</span>
      </div>
      {LOAD_STAGES.map((stage) => (
        <StageList key={stage} stage={stage} table={table} Row={LoadRow} />
      ))}
      {!hasLoads && (
        <p className="pt-1">
          Nothing added yet. Type a few letters of a clay, a scent or a colour below to add it.
        </p>
      )}
    </section>
  );
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

/** One bar: its lines by stage, its loads against their ceilings, and what they lead to. */
export function Worktable({ data }: { data: WorktableData }) {
  const { product, version } = data;
  const [history, dispatch] = useReducer(historyReducer, version.formula, startHistory);
  const [materials, setMaterials] = useState(() => [
    ...data.materials,
    ...data.alternatives.filter(({ id }) => !data.materials.some((material) => material.id === id)),
  ]);
  const formula = history.present;
  const [onDate, setOnDate] = useState(data.onDate);
  const { assessment, errors, remedies } = useAssessment(data, materials, formula, onDate);
  const [unread, setUnreadFields] = useState<Record<string, string>>({});
  const [open, setOpen] = useState<readonly string[]>([]);
  const readable = Object.keys(unread).length === 0;
  const saving = useSaving(product.id, version, formula, errors.length === 0 && readable);
  const [market, setMarket] = useState(product.markets[0]!);
  const [school, setSchool] = useState<School>('added');
  useUndoKeys(dispatch);

  useEffect(() => {
    const kept = recallSteps(product.id, version.revision);
    if (kept) dispatch({ type: 'restore', history: { ...startHistory(version.formula), ...kept } });
  }, [product.id, version]);
  useEffect(() => {
    if (saving.save.state === 'saved') keepSteps(product.id, saving.revision, history);
  }, [product.id, saving.save, saving.revision, history]);

  const names = useMemo(() => new Map(materials.map(({ id, name }) => [id, name])), [materials]);
  const change = useCallback(
    (next: Formula, key: string) => dispatch({ type: 'change', formula: next, key, at: Date.now() }),
    [],
  );
  const setUnread = useCallback(
    (field: string, message: string | null) =>
      setUnreadFields((all) => {
        const { [field]: before, ...rest } = all;
        if (message === null) return before === undefined ? all : rest;
        return { ...rest, [field]: message };
      }),
    [],
  );
  const takeTheirs = () => {
    if (saving.save.state !== 'stale') return;
    change(saving.save.newer.formula, 'theirs');
    saving.carryOnFrom(saving.save.newer);
  };
  const keepMine = () => {
    if (saving.save.state === 'stale') saving.carryOnFrom(saving.save.newer);
  };
  if (!assessment) {
    return (
      <div role="alert" className="p-6">
        {errors.map((error) => (
          <p key={error.path + error.code}>{error.message}</p>
        ))}
      </div>
    );
  }
  const table: Table = {
    formula,
    assessment,
    errors,
    materialName: (id) => names.get(id) ?? id,
    change,
    setUnread,
    isOpen: (id) => open.includes(id),
    toggle: (id) => setOpen((all) => (all.includes(id) ? all.filter((other) => other !== id) : [...all, id])),
  };
  const general = errors.filter(({ path }) => !/^formula\.lines\.\d/.test(path));
  return (
    <TableContext.Provider value={table}>
      <div className="px-6 py-3">
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-2">
          <h1 className="text-2xl">{product.name}</h1>
          <span className="text-soft">{product.note}</span>
          <div className="ml-auto flex items-center gap-3">
            <SaveLine save={saving.save} onTakeTheirs={takeTheirs} onKeepMine={keepMine} />
            <button
              type="button"
              className="action"
              disabled={history.past.length === 0}
              onClick={() => dispatch({ type: 'undo' })}
            >
              <Undo2 size={16} aria-hidden="true" /> Undo
            </button>
            <button
              type="button"
              className="action"
              disabled={history.future.length === 0}
              onClick={() => dispatch({ type: 'redo' })}
            >
              <Redo2 size={16} aria-hidden="true" /> Redo
            </button>
          </div>
        </div>
        {general.length > 0 && (
          <div role="alert" className="mb-2 border-l-4 border-madder bg-wash px-3 py-1.5">
            {general.map((error) => (
              <p key={error.code}>{error.message} The last good reckoning stays below.</p>
            ))}
          </div>
        )}
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_26rem]">
          <div>
            <Loads table={table} />
            <AddLine
              onAdd={({ material }) => {
                if (!names.has(material.id)) setMaterials((all) => [...all, material]);
                change(addLine(formula, material).formula, `add ${Date.now()}`);
                focusAmount(material.name);
              }}
            />
            <section aria-label="Batter" className="sheet mt-3 grid gap-x-8 md:grid-cols-2">
              {BASE_STAGES.map((stage) => (
                <StageList key={stage} stage={stage} table={table} Row={BaseRow} />
              ))}
            </section>
            <OutlookPanel formula={formula} assessment={assessment} materials={materials} />
            <LabelPanel
              product={product}
              school={school}
              predictedBarG={assessment.masses.curedG / product.bars}
              flush={saving.flush}
            />
            <VersionsPanel
              productId={product.id}
              flush={async () => ((await saving.flush()) ? saving.currentRevision() : null)}
              onKept={({ revision }) => saving.moveTo(revision)}
            />
          </div>
          <div>
            <VerdictPanel
              assessment={assessment}
              materialOf={(id) => formula.lines.find((line) => line.id === id)?.material ?? id}
              materialName={table.materialName}
              rulebookEdition={data.rulebookEdition}
              today={data.onDate}
              onDate={onDate}
              onOnDate={setOnDate}
              isOld={errors.length > 0 || !readable}
            />
            <RemediesPanel remedies={readable ? remedies : []} />
            <ListPanel
              assessment={assessment}
              market={market}
              markets={product.markets}
              school={school}
              onMarket={setMarket}
              onSchool={setSchool}
            />
            <NotesPanel assessment={assessment} />
            <AdvicePanel assessment={assessment} />
          </div>
        </div>
      </div>
    </TableContext.Provider>
  );
}
