/** The one connection to the SQLite file, opened and migrated at first use. */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import knex, { type Knex } from 'knex';
import { dataFolder } from './config';
import { migrationSource } from './migrations';

/** Name of the database in the data folder. */
export const DATABASE_FILE = 'proportia.sqlite';

/** Opens and migrates the database of a folder. The folder is made where it is missing. */
export async function openDatabase(folder: string): Promise<Knex> {
  mkdirSync(folder, { recursive: true });
  const database = knex({
    client: 'better-sqlite3',
    connection: { filename: join(folder, DATABASE_FILE) },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (
        connection: { pragma(text: string): void },
        done: (error: Error | null, connection: unknown) => void,
      ) => {
        connection.pragma('journal_mode = WAL');
        connection.pragma('foreign_keys = ON');
        connection.pragma('busy_timeout = 5000');
        done(null, connection);
      },
    },
  });
  await database.migrate.latest({ migrationSource });
  return database;
}

let opened: Promise<Knex> | null = null;

/** The application's database. A failed opening is tried again at the next call. */
export function database(): Promise<Knex> {
  opened ??= openDatabase(dataFolder()).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

/** Closes the application's database, if it is open; the next call opens it anew. */
export async function closeDatabase(): Promise<void> {
  const closing = opened;
  opened = null;
  await (await closing?.catch(() => null))?.destroy();
}
