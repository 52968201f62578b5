/** For what works on the store while the application is off: the folder locked, the database opened, faults in words. */
import type { Knex } from 'knex';
import { dataFolder } from '../src/server/config';
import { openDatabase } from '../src/server/database';
import { lockFolder } from '../src/server/front/lock';
import { storeFault } from '../src/server/store/faults';

/** Does it, and says what came of it. What stands in the way ends the program with `notDone` and why. */
export async function inStore(work: (db: Knex) => Promise<string>, notDone: string): Promise<void> {
  try {
    const release = lockFolder(dataFolder());
    const db = await openDatabase(dataFolder());
    console.log(await work(db));
    await db.destroy();
    release();
  } catch (error) {
    const known = storeFault(error);
    if (!known) throw error;
    console.error(`\n${notDone} ${known.message} (${dataFolder()})\n`);
    process.exit(1);
  }
}
