/**
 * One Proportia a folder: a lock that the operating system keeps for as long as the process lives, and lifts
 * however it ends. It is a file of its own beside the database, held open in an exclusive transaction.
 */
import { chmodSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StoreFault, storeFault } from '../store/faults';

const LOCK_FILE = 'in-use.lock';

/** Takes the folder for this process. Throws a StoreFault where another has it. Answers how to give it back. */
export function lockFolder(folder: string): () => void {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const file = join(folder, LOCK_FILE);
    const lock = new Database(file, { timeout: 0 });
    lock.pragma('locking_mode = EXCLUSIVE');
    lock.exec('BEGIN EXCLUSIVE');
    chmodSync(file, 0o600);
    return () => lock.close();
  } catch (error) {
    const known = storeFault(error);
    if (known?.kind === 'busy') throw new StoreFault('in-use', folder);
    throw known ?? error;
  }
}
