/** Everything the watch shows at a glance. */
import type { Market } from '../../core/formula/types';
import type { WatchData } from '../../core/records/watch';
import { EDITION_NAMES } from '../../rulebook';
import type { House } from '../house';
import { allLots } from '../repositories/lots';
import { findHouseRules } from '../repositories/settings';
import { snapshotOf } from '../store/snapshot';
import { lookAhead } from './ahead';
import { listChanges } from './changes';
import { listTasks } from './tasks';

/** The watch. */
export async function watchData(house: House): Promise<WatchData> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const bars: { id: string; name: string; markets: string }[] = await db.raw(
    "select id, name, json_extract(body, '$.markets') as markets from products where put_away_on is null order by position",
  );
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
    bars: bars.map(({ markets, ...bar }) => ({ ...bar, markets: JSON.parse(markets) as Market[] })),
    lots: lots.sort((a, b) => a.words.localeCompare(b.words)),
    edition: snapshot.edition,
    editions: [...EDITION_NAMES, ...editions.onFile.map(({ edition }) => edition)],
  };
}
