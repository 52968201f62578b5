/** Everything the watch shows at a glance. */
import { barsMade } from '../../repositories/products';
import type { WatchData } from '../../../core/records/watch';
import { EDITION_NAMES } from '../../../rulebook';
import type { House } from '../../house';
import { allLots } from '../../repositories/lots';
import { findHouseRules } from '../../repositories/settings';
import { snapshotOf } from '../../store/snapshot';
import { lookAhead } from './ahead';
import { listChanges } from './changes';
import { listTasks } from './tasks';

/** The watch. */
export async function watchData(house: House): Promise<WatchData> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const bars = await barsMade(db);
  const { editions } = await findHouseRules(db);
  const lots = (await allLots(db)).map(({ id, code, material, quarantine }) => ({
    id,
    words: `${snapshot.material(material)?.name ?? material}, lot ${code}`,
    quarantine,
  }));
  return {
    today,
    tasks: await listTasks(house),
    changes: await listChanges(house),
    ahead: await lookAhead(house),
    bars: bars.map(({ id, name, markets }) => ({ id, name, markets })),
    lots: lots.sort((a, b) => a.words.localeCompare(b.words)),
    edition: snapshot.edition,
    editions: [...EDITION_NAMES, ...editions.onFile.map(({ edition }) => edition)],
  };
}
