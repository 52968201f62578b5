import type { BackupSettings } from '../../../../core/records/house';
import { BackupSettingsDoor } from '../../../../server/doors/house';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { backupsData, makeBackup, requireFolder } from '../../../../server/services/house/backups';
import { changeSetting } from '../../../../server/services/house/settings';

export const GET = endpoint(async () => answerJson(await backupsData((await openHouse()).db)));

/** Makes one now. */
export const POST = endpoint(async () => answerJson(await makeBackup((await openHouse()).db, 'byHand'), 201));

/** How often, and where copies go; 409 with the newer where they were changed in between. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, ...settings } = await readShaped<BackupSettings & { revision: number }>(
    BackupSettingsDoor,
    request,
  );
  requireFolder(settings.copyTo);
  const house = await openHouse();
  const { stale } = await changeSetting(house, 'backups', revision, settings);
  return answerJson(await backupsData(house.db), stale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'POST', 'PUT');
