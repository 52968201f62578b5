import { openHouse } from '../../../../server/house';
import { endpoint, fault, onlyMethods } from '../../../../server/http';
import { inboxBytes } from '../../../../server/repositories/inbox';

export const GET = endpoint(async ({ params }) => {
  const found = await inboxBytes((await openHouse()).db, params.id ?? '');
  if (!found) throw fault(404, 'unknown-paper', 'There is no such paper in the inbox.', 'id');
  return new Response(found.bytes as BodyInit, {
    headers: { 'content-type': found.mime, 'cache-control': 'no-store' },
  });
});

export const ALL = onlyMethods('GET');
