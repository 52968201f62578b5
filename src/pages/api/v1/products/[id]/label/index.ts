import type { Market } from '../../../../../../core/formula/types';
import type { Country } from '../../../../../../core/labels/languages';
import { LabelQueryDoor } from '../../../../../../server/doors/wrap';
import { checkShape } from '../../../../../../server/doors/shape';
import { openHouse } from '../../../../../../server/house';
import { answerFile, endpoint, HttpFault, onlyMethods } from '../../../../../../server/http';
import { labelFile, type LabelAs } from '../../../../../../server/services/wrap/labels';

export const GET = endpoint(async ({ params, url }) => {
  const asked = Object.fromEntries(url.searchParams);
  const shaped = checkShape<{ market: Market; as: LabelAs; batch?: string; country?: Country }>(
    LabelQueryDoor,
    asked,
  );
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  const { market, as, ...of } = shaped.value;
  const id = params.id ?? '';
  const { mime, extension, body, name } = await labelFile(await openHouse(), id, market, as, of);
  return answerFile(body, mime, name ?? `${id}-${market}-${as}.${extension}`);
});

export const ALL = onlyMethods('GET');
