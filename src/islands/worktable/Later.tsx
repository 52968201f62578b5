import { useDeferredValue, type ReactNode } from 'react';
import { TableContext, useTable, type Table } from './context';

const hasSameLines = (a: Table, b: Table) =>
  a.formula.lines.length === b.formula.lines.length &&
  a.formula.lines.every(({ id }, at) => id === b.formula.lines[at]!.id);

/**
 * What may follow the hands a moment later: the field that is typed in and the verdict come first, the figures of
 * other lines and what follows from them in the next breath. Where lines come, go or move, nothing waits.
 */
export function Later({ children }: { children: ReactNode }) {
  const table = useTable();
  const before = useDeferredValue(table);
  const isSame = before.data === table.data && hasSameLines(before, table);
  return <TableContext.Provider value={isSame ? before : table}>{children}</TableContext.Provider>;
}
