/** What every part of the worktable shares. */
import { createContext, useContext } from 'react';
import type { Assessment } from '../../core/formula/answer';
import type { Formula, RequestError } from '../../core/formula/types';

export interface Table {
  formula: Formula;
  assessment: Assessment;
  errors: readonly RequestError[];
  materialName: (id: string) => string;
  /** Puts a changed formula on the table. Changes under one key within a moment are undone as one. */
  change: (formula: Formula, key: string) => void;
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
