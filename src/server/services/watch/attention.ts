/** What waits for a hand in places that are not open just now, for the header of every page. */
import { PRESSING } from '../../../core/curing/rack';
import type { Attention } from '../../../core/records/attention';
import type { House } from '../../house';
import { backupTrouble } from '../house/backups';
import { inboxNow } from '../papers/letters';
import { rackNow } from '../rack/rack';

/** Counts of what cannot wait on the rack and of papers that wait, after a look into the folder; what ails the backups. */
export async function attentionNow(house: House): Promise<Attention> {
  const { batches } = await rackNow(house);
  const { papers } = await inboxNow(house);
  const tasks = batches.flatMap((batch) => batch.tasks);
  return {
    rack: tasks.filter(({ urgency }) => PRESSING.has(urgency)).length,
    papers: papers.filter(({ filedOn }) => filedOn === null).length,
    backups: await backupTrouble(house.db, house.zone),
  };
}
