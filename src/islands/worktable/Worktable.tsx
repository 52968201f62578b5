import { memo, useEffect, useState, type ReactNode } from 'react';
import type { FoundMaterial } from '../../core/records/cupboard';
import type { WorkingVersion, WorktableData } from '../../core/records/product';
import { FindMaterial } from '../../ui/FindMaterial';
import { guarded } from '../../ui/Guarded';
import { HandsOf } from '../../ui/HandsOf';
import { keepSteps } from '../../ui/history';
import { useStable } from '../../ui/latest';
import { SaveLine } from '../../ui/SaveLine';
import { newStep } from '../../ui/step';
import { BatterSettings } from './BatterSettings';
import { TableContext, useTable, type Table } from './context';
import { addLine } from './edits';
import { useFormula, useFormulaSaving, useMaterials, useOpen, useRowActions, useUnread } from './hooks';
import { Later } from './Later';
import { BatterLines, Loads } from './Lines';
import { VerdictPanel } from './Outcome';
import { Sums } from './Sums';
import { PortionsPanel } from './Portions';
import { useReckoning } from './reckoning';
import { Side } from './Side';
import { Tools } from './Tools';

const NO_REMEDIES: Table['remedies'] = [];

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

/** What is wrong with the formula as a whole; line faults stand at their lines. */
function GeneralFaults() {
  const { errors } = useTable();
  const general = errors.filter(({ path }) => !/^formula\.lines\.\d/.test(path));
  if (general.length === 0) return null;
  return (
    <div role="alert" className="mb-2 border-l-4 border-madder bg-wash px-3 py-1.5">
      {general.map((error) => (
        <p key={error.code}>{error.message} Figures below are from before this change.</p>
      ))}
    </div>
  );
}

/** The formula by its stages, and a place to add to it. */
const Batter = memo(function Batter({ onFound }: { onFound: (found: FoundMaterial) => void }) {
  return (
    <div>
      <Later>
        <Loads />
        <FindMaterial label="Add a material" onFound={onFound} />
        <section aria-label="Batter" className="sheet mt-3">
          <BatterLines />
          <Sums />
          <BatterSettings />
        </section>
        <PortionsPanel />
      </Later>
    </div>
  );
});

/** The head of the table: the bar's name, whether it is saved, and tools. */
function Head({ children }: { children: ReactNode }) {
  const { product } = useTable().data;
  return (
    <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-2">
      <h1 className="text-2xl max-sm:min-h-11">{product.name}</h1>
      <span className="text-soft max-sm:order-1 max-sm:w-full">{product.note}</span>
      <HandsOf of="bar" id={product.id} beside={product.name} />
      <div className="ml-auto flex flex-wrap max-sm:order-2 items-center gap-2">{children}</div>
    </div>
  );
}

function heldBy(readable: boolean, errors: Table['errors']): string | null {
  if (!readable) return 'a field cannot be read';
  return errors.length > 0 ? 'the formula does not reckon' : null;
}

function NotReckoned({ errors }: Pick<Table, 'errors'>) {
  return (
    <div role="alert" className="p-6">
      {errors.map((error) => (
        <p key={error.path + error.code}>{error.message}</p>
      ))}
    </div>
  );
}

/** One bar: its lines by stage, its loads against their ceilings, and what they lead to. */
function WorktableIsland({ data }: { data: WorktableData }) {
  const { history, dispatch, change, key } = useFormula(data);
  const formula = history.present;
  const onTable = useMaterials(data, formula);
  const { material, add } = onTable;
  const [onDate, setOnDate] = useState(data.onDate);
  const { readable, setUnread } = useUnread();
  const { isOpen, isAnyOpen, toggle } = useOpen();
  const act = useRowActions(change, setUnread, toggle);
  const asked = { formula, onDate, explain: isAnyOpen };
  const { assessment, errors, remedies, reckon } = useReckoning(data, onTable, asked);
  const saving = useFormulaSaving(data, formula, errors.length === 0 && readable);
  const { save, revision, flush, currentRevision, moveTo, carryOnFrom } = saving;
  useEffect(() => {
    if (save.state === 'saved') keepSteps(key, revision, history);
  }, [key, save, revision, history]);
  const onFound = useStable(({ material: found }: FoundMaterial) => {
    add([found]);
    change(addLine(formula, found).formula, newStep('add'));
    focusAmount(found.name);
  });
  const onKept = useStable(({ revision: kept }: WorkingVersion) => moveTo(kept));
  if (!assessment) return <NotReckoned errors={errors} />;
  const carryOn = (takeTheirs: boolean) => {
    if (save.state !== 'stale') return;
    if (takeTheirs) change(save.newer.value, 'theirs');
    carryOnFrom(save.newer);
  };
  const table: Table = {
    act,
    data,
    formula,
    assessment,
    errors,
    onDate,
    reckon,
    remedies: readable ? remedies : NO_REMEDIES,
    material,
    bring: add,
    materialName: (id) => material(id)?.name ?? id,
    change,
    flush: async () => ((await flush()) ? currentRevision() : null),
    setUnread,
    isOpen,
    toggle,
  };
  return (
    <TableContext.Provider value={table}>
      <div className="page">
        <Head>
          <SaveLine
            what="This bar"
            saving={saving}
            onTakeTheirs={() => carryOn(true)}
            onKeepMine={() => carryOn(false)}
            onTakeAside={(value) => change(value, 'aside')}
            held={heldBy(readable, errors)}
            isUnread={!readable}
          />
          <Tools history={history} dispatch={dispatch} />
        </Head>
        <GeneralFaults />
        <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_27rem]">
          <Batter onFound={onFound} />
          <div>
            <VerdictPanel onOnDate={setOnDate} isOld={errors.length > 0 || !readable} />
            <Later>
              <Side first={data.product.markets[0]!} onKept={onKept} />
            </Later>
          </div>
        </div>
      </div>
    </TableContext.Provider>
  );
}

export const Worktable = guarded('The worktable', WorktableIsland);
