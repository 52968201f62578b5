import type { Market } from '../../../../../../core/formula/types';
import { database } from '../../../../../../server/database';
import { LabelQueryDoor } from '../../../../../../server/doors/wrap';
import { checkShape } from '../../../../../../server/doors/shape';
import { endpoint, HttpFault, onlyMethods } from '../../../../../../server/http';
import { labelFile, type LabelAs } from '../../../../../../server/services/labels';

export const GET = endpoint(async ({ params, url }) => {
  const asked = Object.fromEntries(url.searchParams);
  const shaped = checkShape<{ market: Market; as: LabelAs }>(LabelQueryDoor, asked);
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  const { market, as } = shaped.value;
  const id = params.id ?? '';
  const { mime, extension, body } = await labelFile(await database(), id, market, as);
  const file = `${id}-${market}-${as}.${extension}`.replace(/[^\w.-]/g, '_');
  return new Response(body as BodyInit, {
    headers: {
      'content-type': mime,
      'content-disposition': `attachment; filename="${file}"`,
      'x-content-type-options': 'nosniff',
    },
  });
});

export const ALL = onlyMethods('GET');
