/** A sheet as it was opened, what was taken of it coloured; a row is left out, or taken again, by its number. */
import type { CellRole } from '../../core/sheets/account';
import styles from './sheet-picture.module.css';

const MOST_ROWS = 300;
const MOST_COLUMNS = 16;

const ROLE_WORDS: readonly (readonly [CellRole, string])[] = [
  ['bar', 'a bar’s name'],
  ['name', 'an ingredient'],
  ['amount', 'its amount'],
  ['note', 'a note'],
  ['head', 'heads'],
];

const ROLE_STYLES: Record<CellRole, string | undefined> = {
  head: styles.head,
  bar: styles.bar,
  name: styles.name,
  amount: styles.amount,
  note: styles.note,
};

export function SheetPicture({
  rows,
  cells,
  out,
  onOut,
}: {
  rows: readonly (readonly string[])[];
  cells: ReadonlyMap<string, CellRole>;
  /** Rows left out, from 0. */
  out: ReadonlySet<number>;
  onOut: (row: number) => void;
}) {
  const filled = rows.findLastIndex((row) => row.some((cell) => cell.trim() !== ''));
  const shown = rows.slice(0, Math.min(MOST_ROWS, filled + 1));
  const width = Math.min(MOST_COLUMNS, Math.max(0, ...shown.map((row) => row.length)));
  return (
    <div className="grid gap-1">
      <div className={styles.picture} tabIndex={0} role="group" aria-label="The sheet, to scroll">
        <table className="plain-table table-auto font-narrow whitespace-nowrap" aria-label="The sheet">
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
                  return (
                    <td key={column} className={role ? ROLE_STYLES[role] : styles.untaken}>
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
        <span>What is not coloured is not taken. A row’s number leaves it out.</span>
        {filled >= MOST_ROWS && <span>{filled + 1 - MOST_ROWS} rows more are not shown.</span>}
      </p>
    </div>
  );
}
