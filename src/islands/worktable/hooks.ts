/** What the worktable keeps: the formula with its steps, fields that cannot be read, and the materials on it. */
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import type { Formula, Material } from '../../core/formula/types';
import type { FoundMaterial } from '../../core/records/cupboard';
import type { WorkingVersion, WorktableData } from '../../core/records/product';
import { address, send } from '../../ui/api';
import type { Change, RowActions } from './context';
import { scaleLines, setAmount } from './edits';
import { historyReducer, recallSteps, startHistory, useUndoKeys } from '../../ui/history';
import { useLatest } from '../../ui/latest';
import { useSaving, type OnFile } from '../../ui/saving';

function onFile({ revision, savedAt, formula }: WorkingVersion): OnFile<Formula> {
  return { revision, savedAt, value: formula };
}

const writeFormula = (revision: number, formula: Formula) => ({ revision, formula });
const readSaved = (body: unknown) => {
  const { version, stale } = body as { version?: WorkingVersion; stale?: WorkingVersion };
  return stale ? { stale: onFile(stale) } : { saved: onFile(version!) };
};

/** The formula on the table with its steps back and forth, which outlast a reload. */
export function useFormula({ product, version }: WorktableData) {
  const [history, dispatch] = useReducer(historyReducer<Formula>, version.formula, startHistory<Formula>);
  const key = `worktable:${product.id}`;
  useUndoKeys(dispatch);
  useEffect(() => {
    const kept = recallSteps<Formula>(key, version.revision);
    if (kept) dispatch({ type: 'restore', history: { ...startHistory(version.formula), ...kept } });
  }, [key, version]);
  const latest = useLatest(history.present);
  const change: Change = useCallback(
    (next, step) => {
      const value = typeof next === 'function' ? next(latest.current) : next;
      dispatch({ type: 'change', value, key: step, at: Date.now() });
    },
    [latest],
  );
  return { history, dispatch, change, key };
}

/** Fields that cannot be read at the moment. */
export function useUnread() {
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

/** Which lines' details are open. */
export function useOpen() {
  const [open, setOpen] = useState<readonly string[]>([]);
  const toggle = useCallback(
    (id: string) => setOpen((all) => (all.includes(id) ? all.filter((other) => other !== id) : [...all, id])),
    [],
  );
  return { isOpen: (id: string) => open.includes(id), isAnyOpen: open.length > 0, toggle };
}

/** What rows do, on whatever formula lies on the table by then. */
export function useRowActions(
  change: Change,
  setUnread: RowActions['setUnread'],
  toggle: RowActions['toggle'],
): RowActions {
  return useMemo(
    () => ({
      setAmount: (lineId, amount, key, how) => change((now) => setAmount(now, lineId, amount, how), key),
      scaleLines: (lineIds, share, key) => change((now) => scaleLines(now, lineIds, share), key),
      setUnread,
      toggle,
    }),
    [change, setUnread, toggle],
  );
}

/** Saves the formula on the table. */
export function useFormulaSaving({ product, version }: WorktableData, value: Formula, savable: boolean) {
  const loaded = useMemo(() => onFile(version), [version]);
  const url = address('products', product.id, 'formula');
  return useSaving<Formula>({ url, loaded, value, savable, write: writeFormula, read: readSaved });
}

/**
 * The materials on the table: those of the formula, and what is added to it. A version gone back to, another window's
 * formula or a step undone may hold others: they are asked for.
 */
export function useMaterials(data: WorktableData, formula: Formula) {
  const [materials, setMaterials] = useState<Material[]>(data.materials);
  const byId = useMemo(() => new Map(materials.map((material) => [material.id, material])), [materials]);
  const material = useCallback((id: string) => byId.get(id), [byId]);
  const add = useCallback(
    (found: readonly Material[]) =>
      setMaterials((all) => {
        const fresh = found.filter(({ id }) => !all.some((one) => one.id === id));
        return fresh.length > 0 ? [...all, ...fresh] : all;
      }),
    [],
  );
  const asked = useRef(new Set<string>());
  useEffect(() => {
    const missing = [...new Set(formula.lines.map((line) => line.material))].filter(
      (id) => !byId.has(id) && !asked.current.has(id),
    );
    if (missing.length === 0) return;
    for (const id of missing) asked.current.add(id);
    const url = `/api/v1/materials?ids=${missing.map(encodeURIComponent).join(',')}`;
    void send<{ materials: FoundMaterial[] }>('GET', url).then((answer) => {
      if (answer.ok) add(answer.body.materials.map((found) => found.material));
      // Without an answer they are asked for again at the next change.
      else for (const id of missing) asked.current.delete(id);
    });
  }, [formula, byId, add]);
  return { materials, material, add };
}
