/** Migrates the database and fills it with the demo where it is empty. */
import { seedDemo } from '../src/demo/seed';
import { dataFolder, today, usualZone } from '../src/server/config';
import { openDatabase } from '../src/server/database';
import { lockFolder } from '../src/server/front/lock';
import { storeFault } from '../src/server/store/faults';

try {
  const release = lockFolder(dataFolder());
  const db = await openDatabase(dataFolder());
  const seeded = await seedDemo(db, today(usualZone()), usualZone());
  console.log(seeded ? 'Demo data seeded.' : 'There are products already; nothing seeded.');
  await db.destroy();
  release();
} catch (error) {
  const known = storeFault(error);
  if (!known) throw error;
  console.error(`\nProportia cannot start. ${known.message} (${dataFolder()})\n`);
  process.exit(1);
}
