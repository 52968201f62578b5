import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { restoreBackup } from '../../../../../server/services/house/backups';

/** Puts a backup in the place of what is there; answers the backup that was made of that before. */
export const POST = endpoint(async ({ params }) =>
  answerJson(await restoreBackup((await openHouse()).db, params.id ?? '')),
);

export const ALL = onlyMethods('POST');
