/** Migrates the database and fills it with the demo where it is empty. */
import { seedDemo } from '../src/demo/seed';
import { today } from '../src/server/config';
import { database } from '../src/server/database';

const db = await database();
console.log(
  (await seedDemo(db, today())) ? 'Demo data seeded.' : 'There are products already; nothing seeded.',
);
await db.destroy();
