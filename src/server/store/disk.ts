/** Writing to the disk itself. */
import { closeSync, fsyncSync, openSync } from 'node:fs';

/** Waits until what was written to a file, or the names in a folder, are on the disk. */
export function syncToDisk(path: string): void {
  const handle = openSync(path, 'r');
  fsyncSync(handle);
  closeSync(handle);
}
