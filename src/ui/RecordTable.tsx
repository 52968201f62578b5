import {
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useEffect, useMemo, useRef, type KeyboardEvent, type ReactNode } from 'react';

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() });

export interface Column<T> {
  id: string;
  /** Empty where the column holds only buttons. */
  header: string;
  cell: (row: T) => ReactNode;
  /** What rows are sorted by; left out, the column does not sort. */
  sort?: (row: T) => string | number;
  isNumber?: boolean;
  className?: string;
}

interface Props<T> {
  label: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  /** Its first column names a row. */
  keyOf: (row: T) => string;
  /** A table that scrolls within this height class, drawing only the rows in sight. */
  window?: string;
  chosen?: string | null;
  onChoose?: (row: T) => void;
}

const compare = (a: string | number, b: string | number) =>
  typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));

function useRecords<T extends RowData>({
  rows,
  columns,
  keyOf,
}: Pick<Props<T>, 'rows' | 'columns' | 'keyOf'>) {
  const data = useMemo(() => [...rows], [rows]);
  const defs = useMemo(
    () =>
      columns.map(({ id, header, sort }): ColumnDef<typeof features, T> => ({
        id,
        header,
        accessorFn: (row: T) => sort?.(row) ?? '',
        enableSorting: sort !== undefined,
        sortFn: (a, b) => compare(sort!(a.original), sort!(b.original)),
        sortDescFirst: false,
      })),
    [columns],
  );
  return useTable({ features, columns: defs, data, getRowId: keyOf });
}

const SORTED = { asc: 'ascending', desc: 'descending' } as const;

/** Rows taller or lower than this are measured as they come into sight. */
const ROW_PX = 33;
const ROWS_BEYOND = 12;

/** Records in rows: sorted by their heads, chosen by pointer or arrows, only those in sight drawn where they are many. */
export function RecordTable<T extends RowData>({
  label,
  rows,
  columns,
  keyOf,
  window,
  chosen,
  onChoose,
}: Props<T>) {
  const table = useRecords({ rows, columns, keyOf });
  const sorted = table.getRowModel().rows;
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: ROWS_BEYOND,
    enabled: window !== undefined,
    initialRect: { width: 0, height: ROW_PX * ROWS_BEYOND },
  });
  const at = sorted.findIndex(({ id }) => id === chosen);
  const { scrollToIndex } = virtual;
  useEffect(() => {
    if (window !== undefined && at >= 0) scrollToIndex(at);
  }, [at, window, scrollToIndex]);
  const step = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!by || !onChoose) return;
    event.preventDefault();
    const next = sorted[Math.min(sorted.length - 1, Math.max(0, at + by))];
    if (next) onChoose(next.original);
  };
  const items = window === undefined ? null : virtual.getVirtualItems();
  const drawn = items ? items.map(({ index }) => sorted[index]!) : sorted;
  const before = items?.[0]?.start ?? 0;
  const after = items ? virtual.getTotalSize() - (items.at(-1)?.end ?? 0) : 0;
  return (
    <div
      ref={frame}
      className={window}
      tabIndex={onChoose ? 0 : undefined}
      onKeyDown={step}
      role="presentation"
    >
      <table className="record-table" aria-label={label} aria-rowcount={rows.length + 1}>
        <thead>
          <tr>
            {table.getFlatHeaders().map(({ id, column }, index) => {
              const way = column.getIsSorted();
              const { header, isNumber, className = '' } = columns[index]!;
              return (
                <th
                  key={id}
                  scope="col"
                  className={`${isNumber ? 'text-right' : ''} ${className.includes('max-md:hidden') ? 'max-md:hidden' : ''}`}
                  aria-sort={way ? SORTED[way] : undefined}
                >
                  <Head text={header} way={way} onSort={column.getCanSort() ? column.toggleSorting : null} />
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {before > 0 && <tr aria-hidden="true" style={{ height: before }} />}
          {drawn.map(({ id, original }) => (
            <Row key={id} row={original} columns={columns} isChosen={id === chosen} onChoose={onChoose} />
          ))}
          {after > 0 && <tr aria-hidden="true" style={{ height: after }} />}
        </tbody>
      </table>
    </div>
  );
}

function Head({
  text,
  way,
  onSort,
}: {
  text: string;
  way: false | 'asc' | 'desc';
  onSort: (() => void) | null;
}) {
  if (text === '') return <span className="sr-only">Do</span>;
  if (!onSort) return text;
  const Mark = way === 'desc' ? ArrowDown : ArrowUp;
  return (
    <button
      type="button"
      className="min-h-6 min-w-6 cursor-pointer whitespace-nowrap"
      onClick={() => onSort()}
    >
      {text}
      {way && <Mark size={12} aria-hidden="true" className="ml-0.5 inline" />}
    </button>
  );
}

interface RowProps<T> {
  row: T;
  columns: readonly Column<T>[];
  isChosen: boolean;
  onChoose?: (row: T) => void;
}

function Row<T>({ row, columns, isChosen, onChoose }: RowProps<T>) {
  return (
    <tr
      aria-current={isChosen ? 'true' : undefined}
      className={onChoose ? 'cursor-pointer' : undefined}
      onClick={() => onChoose?.(row)}
    >
      {columns.map(({ id, cell, isNumber, className = '' }, index) => {
        const shown = cell(row);
        const classes = `${isNumber ? 'text-right tabular-nums' : ''} ${className}`;
        return index === 0 ? (
          <th key={id} scope="row" className={classes}>
            {onChoose ? (
              <button type="button" className="min-h-6 cursor-pointer text-left font-medium">
                {shown}
              </button>
            ) : (
              shown
            )}
          </th>
        ) : (
          <td key={id} className={classes}>
            {shown}
          </td>
        );
      })}
    </tr>
  );
}
