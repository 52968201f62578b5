/** What needs a hand, gathered over all places: the one list that every screen takes its own from. */
import { byGravity, isWaiting, type Hand } from '../../../core/hands/hand';
import {
  handOfTask,
  handsOfBackups,
  handsOfBar,
  handsOfBatch,
  handsOfMaterial,
  handsOfPapers,
} from '../../../core/hands/sources';
import type { House } from '../../house';
import { findSetting } from '../../repositories/settings';
import { cupboardEntries } from '../../store/materials';
import { openTasks } from '../../repositories/changes';
import { backupTrouble } from '../house/backups';
import { inboxNow } from '../papers/letters';
import { rackNow } from '../rack/rack';
import { startDays } from '../rack/next';
import { rangeData } from '../range/range';

/** What cannot wait long in places that are not open: rack, tasks, papers (after a look into the folder), backups. */
export async function handsOfPlaces(house: House): Promise<Hand[]> {
  const { batches } = await rackNow(house);
  const { papers } = await inboxNow(house);
  return [
    ...batches.flatMap((batch) => handsOfBatch(batch, batch.tasks)),
    ...(await openTasks(house.db)).map(handOfTask),
    ...handsOfPapers(papers),
    ...handsOfBackups(await backupTrouble(house.db, house.zone)),
  ];
}

/** What bars wait for by themselves. */
async function handsOfRange(house: House): Promise<Hand[]> {
  const { rows } = await rangeData(house);
  const days = await startDays(house);
  return rows.flatMap((row) => handsOfBar(row, house.today, days[row.id]));
}

/** What papers of materials wait for. */
async function handsOfCupboard(house: House): Promise<Hand[]> {
  const { value: shown } = await findSetting(house.db, 'shownConditions');
  const { value: letters } = await findSetting(house.db, 'letters');
  const entries = await cupboardEntries(
    house,
    ({ material }) => material.id in shown || material.id in letters,
  );
  return entries.flatMap((entry) => handsOfMaterial(entry, shown[entry.material.id] ?? [], house.today));
}

/** Everything that waits for a hand today, grave first; of one bar or batch alone where that is asked. */
export async function handsNow(
  house: House,
  { bar = null, batch = null }: { bar?: string | null; batch?: string | null } = {},
): Promise<Hand[]> {
  const ofBars = batch === null ? await handsOfRange(house) : [];
  const ofMaterials = bar === null && batch === null ? await handsOfCupboard(house) : [];
  return [...ofBars, ...ofMaterials, ...(await handsOfPlaces(house))]
    .filter((hand) => (bar === null || hand.bar === bar) && (batch === null || hand.batch === batch))
    .filter(isWaiting)
    .sort(byGravity);
}
