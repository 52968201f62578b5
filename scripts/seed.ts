/** Migrates the database and fills it with the demo where it is empty. */
import { seedDemo } from '../src/demo/seed';
import { today, usualZone } from '../src/server/config';
import { inStore } from './in-store';

await inStore(
  async (db) =>
    (await seedDemo(db, today(usualZone()), usualZone()))
      ? 'Demo data seeded.'
      : 'There are products already; nothing seeded.',
  'Proportia cannot start.',
);
