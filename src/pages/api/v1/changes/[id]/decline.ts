import { DeclineDoor } from '../../../../../server/doors/change';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { declineChange } from '../../../../../server/services/watch/change-decide';

/** Keeps that it was looked at, and why it was declined. */
export const POST = endpoint(async ({ params, request }) => {
  const { reason } = await readShaped<{ reason: string }>(DeclineDoor, request);
  return answerJson(await declineChange(await openHouse(), params.id ?? '', reason));
});

export const ALL = onlyMethods('POST');
