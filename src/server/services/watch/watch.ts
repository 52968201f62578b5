/** Everything the watch shows at a glance. */
import { barsMade } from '../../repositories/products';
import type { WatchData } from '../../../core/records/watch';
import { EDITION_NAMES } from '../../../rulebook';
import type { House } from '../../house';
import { findHouseRules } from '../../repositories/settings';
import { snapshotOf } from '../../store/snapshot';
import { aheadAtOnce } from '../../store/ahead';
import { listChanges } from './changes';
import { tasksFrom } from './tasks';

/** The watch. */
export async function watchData(house: House): Promise<WatchData> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const bars = await barsMade(db);
  const { editions } = await findHouseRules(db);
  const [open, done] = [await tasksFrom(house, 'open', 0), await tasksFrom(house, 'done', 0)];
  return {
    today,
    tasks: [...open.tasks, ...done.tasks],
    taskCounts: { open: open.count, done: done.count },
    changes: await listChanges(house),
    ahead: await aheadAtOnce(house),
    bars: bars.map(({ id, name, markets }) => ({ id, name, markets })),
    edition: snapshot.edition,
    editions: [...EDITION_NAMES, ...editions.onFile.map(({ edition }) => edition)],
  };
}
