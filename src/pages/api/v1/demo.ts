import { DemoOutDoor } from '../../../server/doors/house';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { makeBackup } from '../../../server/services/house/backups';
import { takeDemoOut } from '../../../server/services/house/house';

/** Takes out what the demo brought, after a backup; the maker's own stays. */
export const POST = endpoint(async ({ request }) => {
  await readShaped(DemoOutDoor, request);
  const house = await openHouse();
  await makeBackup(house.db, 'beforeImport');
  return answerJson(await takeDemoOut(house));
});

export const ALL = onlyMethods('POST');
