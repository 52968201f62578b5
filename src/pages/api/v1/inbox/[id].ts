import { database } from '../../../../server/database';
import { endpoint, fault, onlyMethods } from '../../../../server/http';
import { inboxBytes } from '../../../../server/repositories/inbox';

export const GET = endpoint(async ({ params }) => {
  const found = await inboxBytes(await database(), params.id ?? '');
  if (!found) throw fault(404, 'unknown-paper', `There is no paper "${params.id}" in the inbox.`, 'id');
  return new Response(found.bytes as BodyInit, {
    headers: { 'content-type': found.mime, 'x-content-type-options': 'nosniff', 'cache-control': 'no-store' },
  });
});

export const ALL = onlyMethods('GET');
