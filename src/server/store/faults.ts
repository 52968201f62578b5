/** What can be wrong with the data folder, in words: what it is, that nothing is lost, and what to do. */

import { statfsSync } from 'node:fs';
import { dataFolder } from '../config';

type Kind =
  | 'full'
  | 'disk'
  | 'missing'
  | 'damaged'
  | 'newer'
  | 'empty'
  | 'read-only'
  | 'busy'
  | 'in-use'
  | 'unreachable'
  | 'migration';

const WORDS: Record<Kind, { status: number; message: string }> = {
  full: {
    status: 507,
    message:
      'The disk is full, so this was not saved. What was saved before is safe. Make room and try again.',
  },
  disk: {
    status: 503,
    message:
      'The disk could not be read or written, so this was not done. What was saved before is safe. Look whether the disk is well and try again.',
  },
  missing: {
    status: 503,
    message:
      'The database file is not there, though this folder held one: backups or parts of it are left. Nothing was begun in its place. Put the file back, or begin anew in another folder.',
  },
  damaged: {
    status: 503,
    message:
      'The database file is damaged. Nothing is written to it any more. Stop Proportia, keep a copy of the data folder, and put the last good copy in its place.',
  },
  newer: {
    status: 503,
    message:
      'The database was written by a newer Proportia. Start that version, or point to another data folder.',
  },
  empty: {
    status: 503,
    message:
      'The database file has no content. It may have been cut off by a full disk. Put a good copy in its place, or begin anew in another folder.',
  },
  'read-only': {
    status: 503,
    message:
      'The data folder cannot be written to, so this was not saved. Give this account the right to write there and try again.',
  },
  busy: {
    status: 503,
    message: 'Another program holds the database. Nothing was changed; try again in a moment.',
  },
  'in-use': {
    status: 503,
    message:
      'Another Proportia already works with this data folder. Use that one, or point this one to another folder with PROPORTIA_DATA.',
  },
  migration: {
    status: 503,
    message:
      'Bringing the database up to this version did not succeed. It was put back as it was, and nothing is lost. Go on with the version you had, and tell us what stands below.',
  },
  unreachable: {
    status: 503,
    message:
      'The data folder cannot be opened. Look whether its disk is there and this account may enter it.',
  },
};

/** A fault of the data folder, with its words and the status a client is answered. */
export class StoreFault extends Error {
  readonly status: number;
  constructor(
    readonly kind: Kind,
    /** What the system said, for the log. */
    readonly detail: string = '',
  ) {
    super(WORDS[kind].message);
    this.status = WORDS[kind].status;
  }
}

const BY_CODE: readonly (readonly [pattern: RegExp, kind: Kind])[] = [
  [/^SQLITE_FULL|^ENOSPC/, 'full'],
  [/^SQLITE_CORRUPT|^SQLITE_NOTADB/, 'damaged'],
  [/^SQLITE_READONLY|^EROFS|^EACCES|^EPERM/, 'read-only'],
  [/^SQLITE_BUSY|^SQLITE_LOCKED/, 'busy'],
  [/^SQLITE_CANTOPEN|^ENOENT|^ENOTDIR/, 'unreachable'],
  [/^SQLITE_IOERR|^EIO/, 'disk'],
];

const LEAST_FREE_BYTES = 1_000_000;

function isFull(): boolean {
  try {
    const { bavail, bsize } = statfsSync(dataFolder());
    return bavail * bsize < LEAST_FREE_BYTES;
  } catch {
    return false;
  }
}

/** The store's fault behind an error, or null where it is none. */
export function storeFault(error: unknown): StoreFault | null {
  if (error instanceof StoreFault) return error;
  const { code, message } = (error ?? {}) as { code?: unknown; message?: unknown };
  if (typeof code !== 'string') return null;
  const found = BY_CODE.find(([pattern]) => pattern.test(code))?.[1];
  // SQLite calls it an error of the disk, too, where only its helpers beside the database found no room.
  const kind = found === 'disk' && isFull() ? 'full' : found;
  return kind ? new StoreFault(kind, `${code} ${String(message)}`) : null;
}
