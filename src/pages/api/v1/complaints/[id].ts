import type { StatedComplaint } from '../../../../core/records/complaints';
import { ChangedComplaintDoor } from '../../../../server/doors/complaints';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { changeComplaint } from '../../../../server/services/watch/complaints';

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, ...stated } = await readShaped<StatedComplaint & { revision: number }>(
    ChangedComplaintDoor,
    request,
  );
  const changed = await changeComplaint(await openHouse(), params.id ?? '', revision, stated);
  return answerJson(changed, 'stale' in changed ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
