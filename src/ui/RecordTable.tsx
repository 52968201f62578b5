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
import { groupBy } from '../core/group';
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
  /** Its cell is a link of its own and is not made a button. */
  holdsLink?: boolean;
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
  /** What a row stands under; rows of one group stand together. */
  groupOf?: (row: T) => string;
  /** Rows picked for one action on all of them, by key. */
  picks?: Picks;
  /** About how high a row is. */
  rowPx?: number;
}

export interface Picks {
  keys: ReadonlySet<string>;
  onPick: (keys: ReadonlySet<string>) => void;
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

/** A line of the table: a group's name, or a row. */
type Item<T> = { key: string; group: string; count: number } | { key: string; row: T };

function itemsOf<T>(rows: readonly { id: string; original: T }[], groupOf?: (row: T) => string): Item<T>[] {
  const plain = (one: (typeof rows)[number]): Item<T> => ({ key: one.id, row: one.original });
  if (!groupOf) return rows.map(plain);
  const groups = groupBy(rows, ({ original }) => groupOf(original));
  return [...groups.keys()]
    .sort((a, b) => a.localeCompare(b))
    .flatMap((group) => {
      const members = groups.get(group)!;
      return [{ key: `group ${group}`, group, count: members.length }, ...members.map(plain)];
    });
}

/** Moves what is chosen by arrows, picks by space, all by Ctrl+A, none by Escape; Shift picks on the way. */
function useKeys<T>(
  items: readonly Item<T>[],
  { chosen, onChoose, picks }: Pick<Props<T>, 'chosen' | 'onChoose' | 'picks'>,
) {
  const rows = items.flatMap((item) => ('row' in item ? [item] : []));
  const at = rows.findIndex(({ key }) => key === chosen);
  const toggled = (key: string) => {
    const next = new Set(picks?.keys);
    if (!next.delete(key)) next.add(key);
    return next;
  };
  const pick = (event: KeyboardEvent): boolean => {
    if (!picks) return false;
    const isAll = event.key === 'a' && (event.ctrlKey || event.metaKey);
    if (isAll) picks.onPick(new Set(rows.map(({ key }) => key)));
    else if (event.key === 'Escape' && picks.keys.size > 0) picks.onPick(new Set());
    else if (event.key === ' ' && chosen && event.target === event.currentTarget)
      picks.onPick(toggled(chosen));
    else return false;
    return true;
  };
  const step = (event: KeyboardEvent): boolean => {
    const far = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key];
    if (far === undefined || !onChoose || rows.length === 0) return false;
    const next = rows[Math.min(rows.length - 1, Math.max(0, far))]!;
    onChoose(next.row);
    if (event.shiftKey && picks)
      picks.onPick(new Set([...picks.keys, ...(chosen ? [chosen] : []), next.key]));
    return true;
  };
  return (event: KeyboardEvent) => {
    if (pick(event) || step(event)) event.preventDefault();
  };
}

/** Which lines are drawn: all, or those in sight with the room of the others before and after them. */
function useWindow<T>(items: readonly Item<T>[], isOn: boolean, rowPx: number, chosen?: string | null) {
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => frame.current,
    getItemKey: (index) => items[index]!.key,
    estimateSize: () => rowPx,
    overscan: ROWS_BEYOND,
    // The heads stand above the rows and take room of their frame.
    scrollPaddingStart: rowPx,
    scrollPaddingEnd: 2 * rowPx,
    enabled: isOn,
    initialRect: { width: 0, height: rowPx * ROWS_BEYOND },
  });
  const at = items.findIndex(({ key }) => key === chosen);
  const { scrollToIndex } = virtual;
  useEffect(() => {
    if (isOn && at >= 0) scrollToIndex(at);
  }, [at, isOn, scrollToIndex]);
  const seen = isOn ? virtual.getVirtualItems() : null;
  return {
    frame,
    measure: isOn ? virtual.measureElement : undefined,
    drawn: seen ? seen.map(({ index }) => index) : items.map((_, index) => index),
    before: seen?.[0]?.start ?? 0,
    after: seen ? virtual.getTotalSize() - (seen.at(-1)?.end ?? 0) : 0,
  };
}

/** Records in rows: sorted by their heads, grouped, chosen by pointer or arrows, picked, only those in sight drawn where they are many. */
export function RecordTable<T extends RowData>(props: Props<T>) {
  const { label, rows, columns, keyOf, window, chosen, onChoose, groupOf, picks, rowPx = ROW_PX } = props;
  const table = useRecords({ rows, columns, keyOf });
  const items = itemsOf(table.getRowModel().rows, groupOf);
  const { frame, measure, drawn, before, after } = useWindow(items, window !== undefined, rowPx, chosen);
  const onKey = useKeys(items, props);
  const width = columns.length + Number(picks !== undefined);
  return (
    <div
      ref={frame}
      className={window}
      tabIndex={onChoose ? 0 : undefined}
      onKeyDown={onKey}
      role="presentation"
    >
      <table className="record-table" aria-label={label} aria-rowcount={rows.length + 1}>
        <thead>
          <tr>
            {picks && <PickAll keys={rows.map(keyOf)} picks={picks} />}
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
          {drawn.map((index) => {
            const item = items[index]!;
            if ('group' in item)
              return (
                <GroupRow
                  key={item.key}
                  {...{ index, measure, width, name: item.group, count: item.count }}
                />
              );
            return (
              <Row
                key={item.key}
                {...{ index, measure, row: item.row, id: item.key, columns, onChoose, picks }}
                isChosen={item.key === chosen}
              />
            );
          })}
          {after > 0 && <tr aria-hidden="true" style={{ height: after }} />}
        </tbody>
      </table>
    </div>
  );
}

type Measured = { index: number; measure?: (node: HTMLTableRowElement | null) => void };

function GroupRow({
  index,
  measure,
  width,
  name,
  count,
}: Measured & { width: number; name: string; count: number }) {
  return (
    <tr ref={measure} data-index={index}>
      <th scope="rowgroup" colSpan={width} className="group-row">
        {name} <span className="font-normal text-soft">{count}</span>
      </th>
    </tr>
  );
}

function PickAll({ keys, picks: { keys: picked, onPick } }: { keys: readonly string[]; picks: Picks }) {
  const isAll = keys.length > 0 && keys.every((key) => picked.has(key));
  return (
    <th scope="col" className="w-8">
      <input
        type="checkbox"
        aria-label="Pick every row"
        checked={isAll}
        onChange={() => onPick(new Set(isAll ? [] : keys))}
      />
    </th>
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

interface RowProps<T> extends Measured {
  row: T;
  id: string;
  columns: readonly Column<T>[];
  isChosen: boolean;
  onChoose?: (row: T) => void;
  picks?: Picks;
}

function PickOne({ id, picks: { keys, onPick } }: { id: string; picks: Picks }) {
  const isPicked = keys.has(id);
  const turn = () => onPick(new Set(isPicked ? [...keys].filter((key) => key !== id) : [...keys, id]));
  return (
    <td onClick={(event) => event.stopPropagation()}>
      <input type="checkbox" aria-label="Pick this one" checked={isPicked} onChange={turn} />
    </td>
  );
}

function Row<T>({ index, measure, row, id, columns, isChosen, onChoose, picks }: RowProps<T>) {
  return (
    <tr
      ref={measure}
      data-index={index}
      aria-current={isChosen ? 'true' : undefined}
      className={onChoose ? 'cursor-pointer' : undefined}
      onClick={() => onChoose?.(row)}
    >
      {picks && <PickOne id={id} picks={picks} />}
      {columns.map(({ id, cell, isNumber, className = '', holdsLink }, index) => {
        const shown = cell(row);
        const classes = `${isNumber ? 'text-right tabular-nums' : ''} ${className}`;
        return index === 0 ? (
          <th key={id} scope="row" className={classes}>
            {onChoose && !holdsLink ? (
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
