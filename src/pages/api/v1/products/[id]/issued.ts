import type { Market } from '../../../../../core/formula/types';
import { database } from '../../../../../server/database';
import { IssueDoor } from '../../../../../server/doors/wrap';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { issueLabel } from '../../../../../server/services/labels';

export const POST = endpoint(async ({ params, request }) => {
  const { market } = await readShaped<{ market: Market }>(IssueDoor, request);
  return answerJson(await issueLabel(await database(), params.id ?? '', market), 201);
});

export const ALL = onlyMethods('POST');
