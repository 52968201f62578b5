/** The one connection to the SQLite file, opened, looked over and migrated at first use. */
import { note } from './log';
import { createHash } from 'node:crypto';
import {
  chmodSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import knex, { type Knex } from 'knex';
import { backupFile, backupFolder, backupId, noteBackup } from './archive/backup-files';
import { folded } from '../core/folded';
import { hasTraces } from './archive/traces';
import { dataFolder } from './config';
import { MIGRATION_NAMES, migrationSource } from './migrations';
import { foldMissing } from './store/batches';
import { syncToDisk } from './store/disk';
import { StoreFault, storeFault } from './store/faults';

/** Name of the database in the data folder. */
export const DATABASE_FILE = 'proportia.sqlite';

/** Only the maker's own account reads the folder and what is in it. */
const FOLDER_MODE = 0o700;
const FILE_MODE = 0o600;
const BUSY_MS = 5000;

interface Connection {
  pragma(text: string): void;
  function(name: string, options: { deterministic: boolean }, does: (text: string | null) => string): void;
}

function connect(filename: string): Knex {
  return knex({
    client: 'better-sqlite3',
    connection: { filename },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: Connection, done: (error: Error | null, connection: unknown) => void) => {
        try {
          connection.pragma(`busy_timeout = ${BUSY_MS}`);
          connection.pragma('journal_mode = WAL');
          // In WAL the usual setting, NORMAL, may lose the last commits when the power goes.
          connection.pragma('synchronous = FULL');
          connection.pragma('foreign_keys = ON');
          // SQLite's own lower() knows A to Z alone.
          connection.function('folded', { deterministic: true }, (text) => folded(text ?? ''));
          done(null, connection);
        } catch (error) {
          done(error as Error, connection);
        }
      },
    },
  });
}

/** A database larger than this is looked over in the background: reading all of it would hold the start for seconds. */
const LARGE_BYTES = 32 * 1024 * 1024;

/** Stands in the folder once a large database was found damaged: the next start looks over all of it. */
const LOOK_DUE = 'look-over.due';

export const isLarge = (bytes: number): boolean => bytes > LARGE_BYTES;

/** Refuses a database that a newer program wrote, or one whose pages do not hold together; of a large one, those it begins with. */
async function lookOver(database: Knex, folder: string): Promise<void> {
  const due = join(folder, LOOK_DUE);
  if (existsSync(due) || !isLarge(statSync(join(folder, DATABASE_FILE)).size)) {
    const [{ quick_check: sound }] = (await database.raw('pragma quick_check(1)')) as [
      { quick_check: string },
    ];
    if (sound !== 'ok') throw new StoreFault('damaged', sound);
    rmSync(due, { force: true });
  }
  if (!(await database.schema.hasTable('knex_migrations'))) return;
  const done: { name: string }[] = await database('knex_migrations').select('name');
  const unknown = done.map(({ name }) => name).filter((name) => !MIGRATION_NAMES.includes(name));
  if (unknown.length > 0) throw new StoreFault('newer', unknown.join(', '));
}

/**
 * A migration that was cut off leaves its lock behind; SQLite has taken back what it had half done. Nobody else
 * migrates while we hold the folder, so the lock is lifted, and said to be.
 */
async function liftMigrationLock(database: Knex): Promise<void> {
  if (!(await database.schema.hasTable('knex_migrations_lock'))) return;
  const lock: { is_locked: number } | undefined = await database('knex_migrations_lock').first();
  if (!lock?.is_locked) return;
  note('store', 'A migration was cut off the last time. Its lock is lifted; the migration is done again.');
  await database.migrate.forceFreeMigrationsLock({ migrationSource });
}

/**
 * Brings the database up to this program's make. What is there already is copied before, and put back where it does
 * not succeed: several migrations are one step.
 */
async function migrate(open: Knex, folder: string): Promise<Knex> {
  const file = join(folder, DATABASE_FILE);
  const [, wanted] = (await open.migrate.list({ migrationSource })) as [unknown[], unknown[]];
  if (wanted.length === 0) return open;
  const at = new Date().toISOString();
  const id = backupId(at, 'beforeMigration');
  const backups = backupFolder(folder);
  const copy = backupFile(backups, id)!;
  await open.raw('vacuum into ?', [copy]);
  const sha256 = createHash('sha256').update(readFileSync(copy)).digest('hex');
  noteBackup(backups, { id, at, reason: 'beforeMigration', bytes: statSync(copy).size, sha256, fault: null });
  try {
    await open.migrate.latest({ migrationSource });
    return open;
  } catch (error) {
    await open.destroy();
    for (const end of ['-wal', '-shm']) rmSync(file + end, { force: true });
    copyFileSync(copy, file);
    throw new StoreFault('migration', (error as Error).message);
  }
}

/** Where a house that never was is begun. */
const BEGINNING = 'beginning.sqlite';

/** Begins an empty house aside and puts it in place whole, by one rename: one that is cut off has not begun. */
async function begin(folder: string): Promise<void> {
  const aside = join(folder, BEGINNING);
  for (const end of ['', '-wal', '-shm', '-journal']) rmSync(aside + end, { force: true });
  const made = connect(aside);
  try {
    await made.migrate.latest({ migrationSource });
  } finally {
    // The last to let go of it brings what stands beside it in.
    await made.destroy();
  }
  syncToDisk(aside);
  renameSync(aside, join(folder, DATABASE_FILE));
  syncToDisk(folder);
}

function tighten(folder: string): void {
  for (const file of ['', '-wal', '-shm'].map((end) => join(folder, DATABASE_FILE + end)))
    if (existsSync(file)) chmodSync(file, FILE_MODE);
}

/**
 * Opens and migrates the database of a folder, which is made where it is missing. Throws a StoreFault that says
 * in words what is wrong: damaged, from a newer program, empty, read-only, full.
 */
export async function openDatabase(folder: string): Promise<Knex> {
  const file = join(folder, DATABASE_FILE);
  let database: Knex | null = null;
  try {
    mkdirSync(folder, { recursive: true, mode: FOLDER_MODE });
    if (existsSync(file) && statSync(file).size === 0) throw new StoreFault('empty', file);
    // An empty house is begun only where there was none.
    if (hasTraces(folder)) throw new StoreFault('missing', folder);
    if (!existsSync(file)) await begin(folder);
    database = connect(file);
    await lookOver(database, folder);
    await liftMigrationLock(database);
    database = await migrate(database, folder);
    await database.transaction(foldMissing);
    tighten(folder);
    return database;
  } catch (error) {
    await database?.destroy();
    throw storeFault(error) ?? error;
  }
}

let opened: Promise<Knex> | null = null;
/** Why the database is not worked with any more; null where it holds together. */
let refused: StoreFault | null = null;
let isWatched = false;
let whenOpened: ((open: () => Promise<Knex>) => void) | null = null;

/** Names what begins once the application's database was opened for the first time. */
export function onceOpened(begin: (open: () => Promise<Knex>) => void): void {
  whenOpened = begin;
}

/** Ends all work with a database that was found damaged after it was opened, until another is put in its place. */
export function refuseDatabase(detail: string): void {
  refused = new StoreFault('damaged', detail);
  writeFileSync(join(dataFolder(), LOOK_DUE), detail);
}

/** The application's database. A failed opening is tried again at the next call. */
export function database(): Promise<Knex> {
  if (refused) return Promise.reject(refused);
  opened ??= openDatabase(dataFolder()).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  if (!isWatched && whenOpened) {
    isWatched = true;
    whenOpened(database);
  }
  return opened;
}

/** Puts other files in the place of the application's database; whoever asks meanwhile waits for the new one. */
export async function replaceDatabase(replace: () => void): Promise<void> {
  const old = opened;
  refused = null;
  const next = (async () => {
    await (await old?.catch(() => null))?.destroy();
    replace();
    return openDatabase(dataFolder());
  })();
  opened = next.catch((error: unknown) => {
    opened = null;
    throw error;
  });
  await opened;
}

/** Closes the application's database, if it is open; the next call opens it anew. */
export async function closeDatabase(): Promise<void> {
  const closing = opened;
  opened = null;
  await (await closing?.catch(() => null))?.destroy();
}
