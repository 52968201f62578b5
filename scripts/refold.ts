/** `npm run refold`: makes everything that is kept beside events anew, from the events and the ledger alone. */
import { refold } from '../src/server/store/batches';
import { writing } from '../src/server/store/writing';
import { inStore } from './in-store';

await inStore(
  async (db) => `${await writing(db, refold)} batches folded anew; what is left of every lot summed anew.`,
  'Nothing was changed.',
);
