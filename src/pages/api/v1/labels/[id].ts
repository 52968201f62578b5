import { database } from '../../../../server/database';
import { endpoint, onlyMethods } from '../../../../server/http';
import { reprint } from '../../../../server/services/labels';

/** An issued label's PDF, to the byte as it was issued. */
export const GET = endpoint(async ({ params }) => {
  const pdf = await reprint(await database(), params.id ?? '');
  const file = `${params.id}.pdf`.replace(/[^\w.-]/g, '_');
  return new Response(pdf as BodyInit, {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${file}"` },
  });
});

export const ALL = onlyMethods('GET');
