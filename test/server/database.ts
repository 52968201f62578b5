/** A database of its own for one file of tests, with the demo in it if wanted. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { seedDemo } from '../../src/demo/seed';
import { openDatabase } from '../../src/server/database';

export const DAY = '2026-11-24';

export interface TestDatabase {
  db: Knex;
  folder: string;
  close(): Promise<void>;
}

export async function demoDatabase(): Promise<TestDatabase> {
  const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
  const db = await openDatabase(folder);
  await seedDemo(db, DAY);
  return {
    db,
    folder,
    close: async () => {
      await db.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
