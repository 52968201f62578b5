/** A database of its own for one file of tests, with the demo in it if wanted. */
import { rmSync } from 'node:fs';
import type { Knex } from 'knex';
import { openDatabase } from '../../src/server/database';
import type { House } from '../../src/server/house';
import { FIXED_DAY, seededFolder } from '../support/seeded';

export const DAY = FIXED_DAY;

export interface TestDatabase {
  db: Knex;
  /** What services work with: this database on the fixed day. */
  house: House;
  folder: string;
  close(): Promise<void>;
}

export async function demoDatabase(): Promise<TestDatabase> {
  const folder = seededFolder();
  const db = await openDatabase(folder);
  return {
    db,
    house: { db, today: DAY, now: `${DAY}T09:00:00.000Z`, zone: 'UTC' },
    folder,
    close: async () => {
      await db.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Closes the database that endpoints have opened; they are imported where they are called, and so is this. */
export async function closeServed(): Promise<void> {
  const { closeDatabase } = await import('../../src/server/database');
  await closeDatabase();
}

/** The demo for the tests of a `describe`, which endpoints called in them read as well. */
export function useDemo(): TestDatabase {
  const held = {} as TestDatabase;
  before(async () => {
    await closeServed();
    Object.assign(held, await demoDatabase());
    process.env.PROPORTIA_DATA = held.folder;
    process.env.PROPORTIA_TODAY = DAY;
    // What goes on by itself may have opened the folder from before once more meanwhile.
    await closeServed();
  });
  after(async () => {
    await closeServed();
    await held.close();
  });
  return held;
}
