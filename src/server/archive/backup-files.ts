/** Backups as they lie in their folder: a database file each, with a note beside it of when, why and how it was found. */
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BACKUP_REASONS, type Backup, type BackupReason } from '../../core/records/house';

const FOLDER = 'backups';
const NAME = /^\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}-\d{3}Z-[A-Za-z]{4,20}$/;

/** The folder of backups in a data folder, made where it is missing. */
export function backupFolder(dataFolder: string): string {
  const folder = join(dataFolder, FOLDER);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return folder;
}

/** A name that sorts by its moment and is a file's on every system. */
export const backupId = (at: string, reason: BackupReason): string => `${at.replace(/[:.]/g, '-')}-${reason}`;

/** Where the file of a backup lies; null for what is no backup's name. */
export function backupFile(folder: string, id: string): string | null {
  return NAME.test(id) ? join(folder, `${id}.sqlite`) : null;
}

/** Writes down what is known of a backup. */
export function noteBackup(folder: string, backup: Backup): void {
  const file = backupFile(folder, backup.id)!;
  chmodSync(file, 0o600);
  writeFileSync(`${file}.json`, JSON.stringify(backup, null, 2), { mode: 0o600 });
}

function isBackup(value: unknown): value is Backup {
  const { id, at, reason, bytes, sha256 } = (value ?? {}) as Partial<Backup>;
  return (
    typeof id === 'string' &&
    typeof at === 'string' &&
    !Number.isNaN(Date.parse(at)) &&
    BACKUP_REASONS.includes(reason!) &&
    typeof bytes === 'number' &&
    typeof sha256 === 'string'
  );
}

/** Every backup with its note, newest first; files without a readable note are left alone and not listed. */
export function listBackups(folder: string): Backup[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => name.endsWith('.sqlite.json'))
    .flatMap((name): Backup[] => {
      try {
        const note = JSON.parse(readFileSync(join(folder, name), 'utf8')) as unknown;
        const file = isBackup(note) ? backupFile(folder, note.id) : null;
        return file && name === `${(note as Backup).id}.sqlite.json` && existsSync(file)
          ? [note as Backup]
          : [];
      } catch {
        return [];
      }
    })
    .sort((a, b) => b.id.localeCompare(a.id));
}

/** Takes a backup away with its note. */
export function dropBackup(folder: string, id: string): void {
  const file = backupFile(folder, id);
  if (!file) return;
  rmSync(file, { force: true });
  rmSync(`${file}.json`, { force: true });
}
