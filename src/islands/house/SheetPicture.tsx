/** A sheet as it was opened, what was taken of it coloured; a row is left out, or taken again, by its number. */
import type { KeyboardEvent } from 'react';
import type { CellRole } from '../../core/sheets/account';
import type { CellAt } from '../../core/sheets/cells';
import styles from './sheet-picture.module.css';

const MOST_ROWS = 300;
const MOST_COLUMNS = 16;

const ROLE_WORDS: readonly (readonly [CellRole, string])[] = [
  ['bar', 'a bar’s name'],
  ['name', 'an ingredient'],
  ['amount', 'its amount'],
  ['note', 'a note'],
  ['batch', 'of a batch'],
  ['head', 'heads'],
];

const ROLE_STYLES: Record<CellRole, string | undefined> = {
  head: styles.head,
  bar: styles.bar,
  name: styles.name,
  amount: styles.amount,
  note: styles.note,
  batch: styles.batch,
};

const STEPS: Record<string, readonly [down: number, right: number]> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
};

/** Where the arrows lead from a cell; the cell they lead to has the focus, and Enter points at it. */
function step(event: KeyboardEvent<HTMLTableCellElement>, onPoint: () => void): void {
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault();
    onPoint();
  }
  const by = STEPS[event.key];
  if (!by) return;
  event.preventDefault();
  const cell = event.currentTarget;
  const row = cell.parentElement as HTMLTableRowElement;
  const rows = (row.parentElement as HTMLTableSectionElement).rows;
  const next = rows[row.rowIndex + by[0]]?.cells[cell.cellIndex + by[1]];
  if (next instanceof HTMLTableCellElement && next.tagName === 'TD') next.focus();
}

export function SheetPicture({
  rows,
  cells,
  out,
  onOut,
  at: pointed,
  onPoint,
}: {
  rows: readonly (readonly string[])[];
  cells: ReadonlyMap<string, CellRole>;
  /** Rows left out, from 0. */
  out: ReadonlySet<number>;
  onOut: (row: number) => void;
  /** The cell that was pointed at. */
  at: CellAt | null;
  onPoint: (at: CellAt) => void;
}) {
  const filled = rows.findLastIndex((row) => row.some((cell) => cell.trim() !== ''));
  const shown = rows.slice(0, Math.min(MOST_ROWS, filled + 1));
  const width = Math.min(MOST_COLUMNS, Math.max(0, ...shown.map((row) => row.length)));
  return (
    <div className="grid gap-1">
      <div className={styles.picture} tabIndex={0} role="group" aria-label="The sheet, to scroll">
        <table
          role="grid"
          className="plain-table table-auto font-narrow whitespace-nowrap"
          aria-label="The sheet"
        >
          <tbody>
            {shown.map((row, at) => (
              <tr key={at} className={out.has(at) ? styles.out : undefined}>
                <th scope="row">
                  <button
                    type="button"
                    className={styles.number}
                    aria-pressed={out.has(at)}
                    aria-label={`Leave out row ${at + 1}`}
                    onClick={() => onOut(at)}
                  >
                    {at + 1}
                  </button>
                </th>
                {Array.from({ length: width }, (_, column) => {
                  const isEmpty = out.has(at) || !row[column]?.trim();
                  const role = isEmpty ? undefined : cells.get(`${at} ${column}`);
                  const isPointed = pointed?.row === at && pointed.column === column;
                  const isEntry = isPointed || (pointed === null && at === 0 && column === 0);
                  return (
                    <td
                      key={column}
                      role="gridcell"
                      tabIndex={isEntry ? 0 : -1}
                      aria-selected={isPointed}
                      className={`${role ? ROLE_STYLES[role] : styles.untaken} ${isPointed ? styles.pointed : ''}`}
                      onClick={() => onPoint({ row: at, column })}
                      onKeyDown={(event) => step(event, () => onPoint({ row: at, column }))}
                    >
                      {row[column]}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="flex flex-wrap gap-x-4 text-[0.86rem] text-soft">
        {ROLE_WORDS.map(([role, words]) => (
          <span key={role}>
            <span className={`${styles.key} ${ROLE_STYLES[role]}`} aria-hidden="true" /> {words}
          </span>
        ))}
        <span>
          What is not coloured is not taken. A row’s number leaves it out; point at a cell to say what it is.
        </span>
        {filled >= MOST_ROWS && <span>{filled + 1 - MOST_ROWS} rows more are not shown.</span>}
      </p>
    </div>
  );
}
