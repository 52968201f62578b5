import { openHouse } from '../../../../server/house';
import { answerStored, endpoint, fault, onlyMethods } from '../../../../server/http';
import { inboxBytes } from '../../../../server/repositories/inbox';

export const GET = endpoint(async ({ params }) => {
  const found = await inboxBytes((await openHouse()).db, params.id ?? '');
  if (!found) throw fault(404, 'unknown-paper', 'There is no such paper in the inbox.', 'id');
  return answerStored(found.bytes, found.mime);
});

export const ALL = onlyMethods('GET');
