/**
 * What is written down at a bench, kept in the same breath: the browser's database takes its time, and what it was given
 * is called off where the page goes before. A row stands here until the database has it.
 */
const PREFIX = 'proportia.not-kept-yet ';

interface Row {
  batch: string;
  id: string;
}

const keyOf = ({ batch, id }: Row) => `${PREFIX}${batch} ${id}`;

/** Keeps rows at once; a browser that keeps nothing, or has no room left, goes without. */
export function jotDown(rows: readonly Row[]): void {
  try {
    for (const row of rows) localStorage.setItem(keyOf(row), JSON.stringify(row));
  } catch {
    // The database may still take them.
  }
}

/** Lets rows go, once they are kept elsewhere or not wanted any more. */
export function strikeOut(rows: readonly Row[]): void {
  try {
    for (const row of rows) localStorage.removeItem(keyOf(row));
  } catch {
    // Nothing was kept.
  }
}

/** Rows that stand here, of one batch or of all. */
export function jotted<T extends Row>(batch?: string): T[] {
  try {
    const begin = batch === undefined ? PREFIX : `${PREFIX}${batch} `;
    const keys = Array.from({ length: localStorage.length }, (_, at) => localStorage.key(at)!);
    return keys
      .filter((key) => key.startsWith(begin))
      .map((key) => JSON.parse(localStorage.getItem(key)!) as T);
  } catch {
    return [];
  }
}
