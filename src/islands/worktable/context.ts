/** What every part of the worktable shares. */
import { createContext, useContext } from 'react';
import type { Assessment } from '../../core/formula/answer';
import type { Amount, Measure, Formula, Material, RequestError } from '../../core/formula/types';
import type { Remedy } from '../../core/loads/remedies';
import type { WorktableData } from '../../core/records/product';
import type { Reckon } from './reckoning';

/** What rows do; the same object for as long as the table lies there, whatever lies on it. */
export interface RowActions {
  /** `how` it is measured where the words of the amount say so. */
  setAmount: (lineId: string, amount: Amount, key: string, how?: Measure) => void;
  /** Several lines to so much of what each is, 0 to 1. */
  scaleLines: (lineIds: readonly string[], share: number, key: string) => void;
  setUnread: (field: string, message: string | null) => void;
  toggle: (lineId: string) => void;
}

/** A formula, or what becomes of the one that lies on the table by then. */
export type Change = (next: Formula | ((now: Formula) => Formula), key: string) => void;

export interface Table {
  act: RowActions;
  data: WorktableData;
  formula: Formula;
  assessment: Assessment;
  errors: readonly RequestError[];
  /** The day whose rules are looked at. */
  onDate: string;
  reckon: Reckon;
  /** The smallest changes that clear the bar, as far as they are found yet. */
  /** Null while they are looked for. */
  remedies: readonly Remedy[] | null;
  material: (id: string) => Material | undefined;
  /** Brings a material to the table, before a line is of it. */
  bring: (found: readonly Material[]) => void;
  materialName: (id: string) => string;
  /** Puts a changed formula on the table. Changes under one key within a moment are undone as one. */
  change: Change;
  /** Makes sure what is on the table is on file; its revision, or null where it could not be saved. */
  flush: () => Promise<number | null>;
  /** Tells that a field cannot be read (or can be again), so that nothing half read is saved. */
  setUnread: (field: string, message: string | null) => void;
  /** Lines whose details are open. */
  isOpen: (lineId: string) => boolean;
  toggle: (lineId: string) => void;
}

export const TableContext = createContext<Table | null>(null);

export function useTable(): Table {
  const table = useContext(TableContext);
  if (!table) throw new Error('Used outside the worktable.');
  return table;
}

/** Told where something wants the formula on file first, and it cannot be saved. */
export const HELD = {
  path: '',
  message: 'Save the formula first: see the field or message that holds it up.',
};
