/** Whether a folder without a database once held one. */
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { listBackups } from './backup-files';

const FILE = 'proportia.sqlite';

/** Backups, or what a crash leaves beside a database, without the database: an empty house is never begun there. */
export function hasTraces(folder: string): boolean {
  if (!existsSync(folder) || existsSync(join(folder, FILE))) return false;
  const isLeft = (name: string) => name.startsWith(`${FILE}.`) || name === `${FILE}-wal`;
  return readdirSync(folder).some(isLeft) || listBackups(join(folder, 'backups')).length > 0;
}
