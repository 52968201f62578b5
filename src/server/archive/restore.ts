/** Taking a backup back: looked over first, put in place as a whole, what was there kept aside. */
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Backup } from '../../core/records/house';
import { backupFile, listBackups } from './backup-files';
import { faultOf } from './backup-job';

const FILE = 'proportia.sqlite';

/** What is wrong with a backup as it lies there now, or null. */
export function faultOfBackup({ sha256 }: Backup, file: string): string | null {
  const found = faultOf(file);
  if (found !== null) return found;
  const now = createHash('sha256').update(readFileSync(file)).digest('hex');
  return now === sha256 ? null : 'The file is not the one that was made.';
}

/** Puts a file in the place of a folder's database, which nobody may have open. What was there is kept beside it. */
export function putInPlace(folder: string, file: string): void {
  const live = join(folder, FILE);
  copyFileSync(file, `${live}.new`);
  if (existsSync(live)) renameSync(live, `${live}.before`);
  for (const end of ['-wal', '-shm']) rmSync(live + end, { force: true });
  renameSync(`${live}.new`, live);
}

/** The newest backup that holds together, for whoever cannot open the database; null where there is none. */
export function lastGoodBackup(folder: string): string | null {
  const at = join(folder, 'backups');
  return listBackups(at).find((one) => faultOfBackup(one, backupFile(at, one.id)!) === null)?.id ?? null;
}

/** Takes a backup back before the server starts; answers in words why not, or null. */
export function restoreAtStart(folder: string, id: string): string | null {
  const at = join(folder, 'backups');
  const backup = listBackups(at).find((one) => one.id === id);
  if (!backup) return `There is no backup "${id}" in ${at}.`;
  const file = backupFile(at, id)!;
  const found = faultOfBackup(backup, file);
  if (found !== null) return `The backup ${id} does not hold together any more: ${found}`;
  putInPlace(folder, file);
  return null;
}
