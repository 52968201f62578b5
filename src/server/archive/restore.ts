/**
 * Taking a backup back. It is copied aside, opened, looked over and brought up to this program's make there, before
 * anything of the live database is touched; then one rename puts it in place, and what was there is kept beside it.
 */
import { createHash } from 'node:crypto';
import { copyFileSync, createReadStream, existsSync, linkSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Backup } from '../../core/records/house';
import { openDatabase } from '../database';
import { syncToDisk } from '../store/disk';
import { StoreFault } from '../store/faults';
import { backupFile, listBackups } from './backup-files';
import { faultOf } from './backup-job';

const FILE = 'proportia.sqlite';
/** Folder beside the database where a backup is got ready; nothing in it counts. */
const ASIDE = 'restoring';

async function sumOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of createReadStream(file)) hash.update(part as Buffer);
  return hash.digest('hex');
}

/** What is wrong with a backup as it lies there now, or null. */
export async function faultOfBackup({ sha256 }: Backup, file: string): Promise<string | null> {
  const found = faultOf(file);
  if (found !== null) return found;
  return (await sumOf(file)) === sha256 ? null : 'The file is not the one that was made.';
}

/** What a database is made of, by kind and name. */
function partsOf(file: string): Set<string> {
  const db = new Database(file, { readonly: true, fileMustExist: true });
  try {
    const names = db
      .prepare("select type || ' ' || name from sqlite_master where name not like 'sqlite_%'")
      .pluck()
      .all() as string[];
    return new Set(names);
  } finally {
    db.close();
  }
}

/** Whether a database is made of what a new one of this make is made of, and of nothing else that runs. */
function strangePart(file: string, fresh: string): string | null {
  const [found, wanted] = [partsOf(file), partsOf(fresh)];
  const missing = [...wanted].find((part) => !found.has(part));
  if (missing) return `Its ${missing} is missing.`;
  const extra = [...found].find((part) => !wanted.has(part) && /^(?:trigger|view) /.test(part));
  return extra ? `It holds a ${extra} that is not ours.` : null;
}

export interface GetReadyJob {
  /** The data folder. */
  folder: string;
  backup: Backup;
}

/**
 * Gets a backup ready beside the live database: copied, looked over, migrated. Answers where it lies, or in words why
 * it cannot be taken.
 */
export async function getReady({
  folder,
  backup,
}: GetReadyJob): Promise<{ ready: string } | { why: string }> {
  const source = backupFile(join(folder, 'backups'), backup.id)!;
  const aside = join(folder, ASIDE);
  const [copy, fresh] = [join(aside, 'wanted'), join(aside, 'fresh')];
  dropAside(folder);
  for (const one of [copy, fresh]) mkdirSync(one, { recursive: true, mode: 0o700 });
  const file = join(copy, FILE);
  copyFileSync(source, file);
  const fault = await faultOfBackup(backup, file);
  if (fault !== null) return { why: fault };
  try {
    for (const one of [copy, fresh]) await (await openDatabase(one)).destroy();
  } catch (error) {
    if (error instanceof StoreFault && error.kind !== 'full') return { why: error.message };
    throw error;
  }
  const strange = strangePart(file, join(fresh, FILE));
  if (strange) return { why: strange };
  const db = new Database(file);
  db.pragma('journal_mode = DELETE');
  db.close();
  syncToDisk(file);
  return { ready: file };
}

/** Lets go what was got ready and not put in place. */
export function dropAside(folder: string): void {
  rmSync(join(folder, ASIDE), { recursive: true, force: true });
}

/**
 * Puts a file that was got ready in the place of a folder's database, which nobody may have open, by one rename; a crash
 * leaves the one or the other, whole. What was there is kept beside it.
 */
export function putInPlace(folder: string, ready: string): void {
  const live = join(folder, FILE);
  if (existsSync(live)) {
    foldIn(live);
    rmSync(`${live}.before`, { force: true });
    try {
      linkSync(live, `${live}.before`);
    } catch {
      // A disk without links: a copy.
      copyFileSync(live, `${live}.before`);
    }
  }
  for (const end of ['-wal', '-shm']) rmSync(live + end, { force: true });
  renameSync(ready, live);
  syncToDisk(folder);
  dropAside(folder);
}

/** Brings what stands beside a database into it, so that nothing of the old one is left for the new. */
function foldIn(live: string): void {
  try {
    const db = new Database(live);
    db.pragma('journal_mode = DELETE');
    db.close();
  } catch {
    // It is damaged; that is why it goes.
  }
}

/** The newest backup that holds together, for whoever cannot open the database; null where there is none. */
export async function lastGoodBackup(folder: string): Promise<string | null> {
  const at = join(folder, 'backups');
  for (const one of listBackups(at))
    if ((await faultOfBackup(one, backupFile(at, one.id)!)) === null) return one.id;
  return null;
}

/** Takes a backup back before the server starts; answers in words why not, or null. */
export async function restoreAtStart(folder: string, id: string): Promise<string | null> {
  const at = join(folder, 'backups');
  const backup = listBackups(at).find((one) => one.id === id);
  if (!backup) return `There is no backup "${id}" in ${at}.`;
  const got = await getReady({ folder, backup });
  if ('why' in got) {
    dropAside(folder);
    return `The backup ${id} cannot be taken: ${got.why}`;
  }
  putInPlace(folder, got.ready);
  return null;
}
