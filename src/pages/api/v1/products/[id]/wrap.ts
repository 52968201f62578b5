import type { Wrap } from '../../../../../core/records/wrap';
import { SaveWrapDoor } from '../../../../../server/doors/wrap';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { wrapData } from '../../../../../server/services/wrap/desk';
import { saveProductWrap } from '../../../../../server/services/wrap/wrap';

export const GET = endpoint(async ({ params }) =>
  answerJson(await wrapData(await openHouse(), params.id ?? '')),
);

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, wrap } = await readShaped<{ revision: number; wrap: Wrap }>(SaveWrapDoor, request);
  const saved = await saveProductWrap(await openHouse(), params.id ?? '', revision, wrap);
  return answerJson(saved, 'stale' in saved ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
