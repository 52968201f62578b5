import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { assess } from '../../core/assess';
import type { Assessment, School } from '../../core/formula/answer';
import {
  REQUEST_FORMAT,
  STAGES,
  type Amount,
  type Formula,
  type RequestError,
} from '../../core/formula/types';
import type { WorktableData } from '../../server/services/products';
import { STAGE_WORDS } from '../../ui/words';
import { historyReducer, keepSteps, recallSteps, startHistory } from './history';
import { LabelPanel } from './LabelPanel';
import { BaseRow, LoadRow } from './LineRow';
import { ListPanel, NotesPanel, VerdictPanel } from './Outcome';
import { useSaving, type SaveState } from './saving';

const BASE_STAGES = ['fats', 'liquid', 'heldBack'];

/** Reckons at every change; keeps the last good answer while what is on the table does not reckon. */
function useAssessment(data: WorktableData, formula: Formula) {
  const lastGood = useRef<Assessment | null>(null);
  return useMemo(() => {
    const { product, materials, rules, onDate } = data;
    const result = assess(
      {
        format: REQUEST_FORMAT,
        formula,
        materials,
        markets: product.markets,
        onDate,
        firstPlacedOn: product.firstPlacedOn,
      },
      { ...rules, material: () => undefined },
    );
    if (result.ok) lastGood.current = result.assessment;
    return { assessment: lastGood.current, errors: result.ok ? [] : result.errors };
  }, [data, formula]);
}

function SaveLine({
  save,
  onTakeTheirs,
  onKeepMine,
}: {
  save: SaveState;
  onTakeTheirs: () => void;
  onKeepMine: () => void;
}) {
  if (save.state === 'stale') {
    return (
      <div
        role="alert"
        className="flex flex-wrap items-center gap-3 border-l-4 border-madder bg-wash px-3 py-2"
      >
        <span>This bar was changed in another window. Nothing has been overwritten.</span>
        <button type="button" className="action" onClick={onTakeTheirs}>
          Take the other (undo brings yours back)
        </button>
        <button type="button" className="action" onClick={onKeepMine}>
          Keep mine
        </button>
      </div>
    );
  }
  const words = {
    saved: 'Saved',
    waiting: 'Not saved yet',
    saving: 'Saving',
    failed: save.state === 'failed' ? `Not saved: ${save.message}` : '',
  }[save.state];
  return (
    <span role="status" className={save.state === 'failed' ? 'text-madder' : 'text-soft'}>
      {words}
    </span>
  );
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

function withAmount(formula: Formula, lineId: string, amount: Amount): Formula {
  return {
    ...formula,
    lines: formula.lines.map((line) => (line.id === lineId ? { ...line, amount } : line)),
  };
}

function faultAt(errors: readonly RequestError[], index: number): string | undefined {
  return errors.find(({ path }) => path.startsWith(`formula.lines.${index}.`))?.message;
}

/** One bar: its lines by stage, its loads against their ceilings, and what they lead to. */
export function Worktable({ data }: { data: WorktableData }) {
  const { product, version } = data;
  const [history, dispatch] = useReducer(historyReducer, version.formula, startHistory);
  const formula = history.present;
  const { assessment, errors } = useAssessment(data, formula);
  const [unread, setUnread] = useState<Record<string, string>>({});
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

  const names = useMemo(() => new Map(data.materials.map(({ id, name }) => [id, name])), [data.materials]);
  const materialName = useCallback((id: string) => names.get(id) ?? id, [names]);
  const setAmount = (lineId: string, key: string) => (amount: Amount) =>
    dispatch({ type: 'change', formula: withAmount(formula, lineId, amount), key, at: Date.now() });
  const setFault = (lineId: string) => (message: string | null) =>
    setUnread(({ [lineId]: _, ...rest }) => (message === null ? rest : { ...rest, [lineId]: message }));
  const takeTheirs = () => {
    if (saving.save.state !== 'stale') return;
    const { newer } = saving.save;
    dispatch({ type: 'change', formula: newer.formula, key: 'theirs', at: Date.now() });
    saving.carryOnFrom(newer);
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
  const rowProps = (index: number) => {
    const line = formula.lines[index]!;
    const { id } = line;
    const fault = faultAt(errors, index);
    return {
      line,
      assessment,
      materialName,
      fault,
      onChange: setAmount(id, `amount ${id}`),
      onFault: setFault(id),
    };
  };
  const known = (id: string) => assessment.lines.some((entry) => entry.id === id);
  const inStage = (stage: string) =>
    formula.lines
      .map((line, index) => ({ line, index }))
      .filter(({ line }) => line.stage === stage && known(line.id));
  const general = errors.filter(({ path }) => !/^formula\.lines\.\d/.test(path));
  return (
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
          <section aria-label="Loads" className="sheet">
            <div className="load-head" aria-hidden="true">
              <span>Load</span>
              <span>Amount</span>
              <span>Weighs</span>
              <span>Against its limit, the upright rule</span>
              <span>Room left</span>
            </div>
            {STAGES.filter((stage) => !BASE_STAGES.includes(stage)).map((stage) =>
              inStage(stage).length === 0 ? null : (
                <div key={stage}>
                  <h2 className="stage-head">{STAGE_WORDS[stage]}</h2>
                  <ul>
                    {inStage(stage).map(({ line, index }) => (
                      <LoadRow
                        key={line.id}
                        {...rowProps(index)}
                        margin={(formula.marginPct ?? 10) / 100}
                        onLargest={setAmount(line.id, `largest ${line.id} ${history.past.length}`)}
                      />
                    ))}
                  </ul>
                </div>
              ),
            )}
          </section>
          <section aria-label="Batter" className="sheet mt-3 grid gap-x-8 md:grid-cols-2">
            {BASE_STAGES.map((stage) =>
              inStage(stage).length === 0 ? null : (
                <div key={stage}>
                  <h2 className="stage-head">{STAGE_WORDS[stage as 'fats']}</h2>
                  <ul>
                    {inStage(stage).map(({ line, index }) => (
                      <BaseRow key={line.id} {...rowProps(index)} />
                    ))}
                  </ul>
                </div>
              ),
            )}
          </section>
          <LabelPanel
            product={product}
            school={school}
            predictedBarG={assessment.masses.curedG / product.bars}
            flush={saving.flush}
          />
        </div>
        <div>
          <VerdictPanel
            assessment={assessment}
            materialName={materialName}
            rulebookEdition={data.rulebookEdition}
            onDate={data.onDate}
            isOld={errors.length > 0 || !readable}
          />
          <ListPanel
            assessment={assessment}
            market={market}
            markets={product.markets}
            school={school}
            onMarket={setMarket}
            onSchool={setSchool}
          />
          <NotesPanel assessment={assessment} />
        </div>
      </div>
    </div>
  );
}
