/** `npm run refold`: makes everything that is kept beside events anew, from the events and the ledger alone. */
import { dataFolder } from '../src/server/config';
import { openDatabase } from '../src/server/database';
import { lockFolder } from '../src/server/front/lock';
import { refold } from '../src/server/store/batches';
import { storeFault } from '../src/server/store/faults';
import { writing } from '../src/server/store/writing';

try {
  const release = lockFolder(dataFolder());
  const db = await openDatabase(dataFolder());
  console.log(`${await writing(db, refold)} batches folded anew; what is left of every lot summed anew.`);
  await db.destroy();
  release();
} catch (error) {
  const known = storeFault(error);
  if (!known) throw error;
  console.error(`\nNothing was changed. ${known.message} (${dataFolder()})\n`);
  process.exit(1);
}
