import type { Market } from '../../../../../core/formula/types';
import { IssueDoor } from '../../../../../server/doors/wrap';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { issueLabel } from '../../../../../server/services/wrap/labels';

export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const { market, batch = null } = await readShaped<{ market: Market; batch?: string }>(IssueDoor, request);
  return answerJson(await issueLabel(await openHouse(), params.id ?? '', market, key, batch), 201);
});

export const ALL = onlyMethods('POST');
