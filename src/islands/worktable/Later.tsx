import { flushSync } from 'react-dom';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useLatest } from '../../ui/latest';
import { TableContext, useTable, type Table } from './context';

const hasSameLines = (a: Table, b: Table) =>
  a.formula.lines.length === b.formula.lines.length &&
  a.formula.lines.every(({ id }, at) => id === b.formula.lines[at]!.id);

/** After the paint, a breath for keys that wait, milliseconds. */
const BREATH_MS = 4;

/**
 * The value as it was until the screen has been painted with the one given; then the newest. It is put in at one go: a
 * drawing that keys break into would bring a field an older value than what was typed into it since.
 */
function useAfterPaint<T>(value: T): T {
  const [shown, setShown] = useState(value);
  const latest = useLatest(value);
  const isDue = useRef(false);
  useEffect(() => {
    if (isDue.current) return;
    isDue.current = true;
    requestAnimationFrame(() =>
      setTimeout(() => {
        isDue.current = false;
        flushSync(() => setShown(latest.current));
      }, BREATH_MS),
    );
  }, [value, latest]);
  return shown;
}

/**
 * What may follow the hands a moment later: the field that is typed in and the verdict are painted first, the figures
 * of the lines and what follows from them in the next frame. Where lines come, go or move, nothing waits.
 */
export function Later({ children }: { children: ReactNode }) {
  const table = useTable();
  const before = useAfterPaint(table);
  const isSame = before.data === table.data && hasSameLines(before, table);
  return <TableContext.Provider value={isSame ? before : table}>{children}</TableContext.Provider>;
}

interface StillProps {
  /** What of the table is shown here. */
  by: (table: Table) => string;
  children: ReactNode;
}

/** Keeps the table as it was while what is shown of it stays the same. Changes go through `change` with a function. */
export function Still({ by, children }: StillProps) {
  const table = useTable();
  const shown = by(table);
  const still = useMemo(
    () => table,
    // Only what is shown makes it another.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [shown],
  );
  return <TableContext.Provider value={still}>{children}</TableContext.Provider>;
}
