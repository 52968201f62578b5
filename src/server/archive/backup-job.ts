/** Making one backup, on a thread: a page-true copy of the live database, opened and looked over before it counts. */
import { createHash } from 'node:crypto';
import { createReadStream, renameSync, rmSync, statSync } from 'node:fs';
import Database from 'better-sqlite3';
import { MIGRATION_NAMES } from '../migrations';
import { syncToDisk } from '../store/disk';

/** All pages in one step: what others write meanwhile cannot make the copy begin again. */
const ALL_PAGES = 2_000_000_000;

/** What is wrong with a database file, or null: its pages, its references, that it is ours and of no newer make. */
export function faultOf(file: string): string | null {
  try {
    const db = new Database(file, { readonly: true, fileMustExist: true });
    try {
      const pages = db.pragma('integrity_check(1)', { simple: true }) as string;
      if (pages !== 'ok') return pages;
      const [orphan] = db.pragma('foreign_key_check') as { table: string }[];
      if (orphan) return `A row of ${orphan.table} refers to one that is missing.`;
      const done = db.prepare('select name from knex_migrations').pluck().all() as string[];
      const newer = done.find((name) => !MIGRATION_NAMES.includes(name));
      if (newer !== undefined) return 'It was written by a newer Proportia.';
      db.prepare('select count(*) from settings').get();
      return null;
    } finally {
      db.close();
    }
  } catch (error) {
    return (error as Error).message;
  }
}

export interface BackUpJob {
  /** The live database. */
  file: string;
  /** Where the copy goes; it stands there only once it is whole. */
  into: string;
}

/** Copies a live database and looks the copy over. */
export async function backUp({ file, into }: BackUpJob) {
  const part = `${into}.part`;
  rmSync(part, { force: true });
  const live = new Database(file, { readonly: true, fileMustExist: true });
  try {
    await live.backup(part, { progress: () => ALL_PAGES });
  } finally {
    live.close();
  }
  const copy = new Database(part);
  // One file that needs no other beside it.
  copy.pragma('journal_mode = DELETE');
  copy.close();
  const fault = faultOf(part);
  syncToDisk(part);
  const hash = createHash('sha256');
  for await (const piece of createReadStream(part)) hash.update(piece as Buffer);
  const sha256 = hash.digest('hex');
  renameSync(part, into);
  return { bytes: statSync(into).size, sha256, fault };
}
