import { AcceptDoor } from '../../../../../server/doors/change';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { acceptChange } from '../../../../../server/services/watch/change-decide';

/** Writes the change and its tasks; 409 where the store is no longer the one that was previewed. */
export const POST = endpoint(async ({ params, request }) => {
  const { note } = await readShaped<{ note?: string }>(AcceptDoor, request);
  return answerJson(await acceptChange(await openHouse(), params.id ?? '', note?.trim() ? note : null));
});

export const ALL = onlyMethods('POST');
