import { DoneDoor } from '../../../../../server/doors/change';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { endTask } from '../../../../../server/services/watch/tasks';

/** Ends a task with what was done. */
export const POST = endpoint(async ({ params, request }) => {
  const { note } = await readShaped<{ note: string }>(DoneDoor, request);
  return answerJson(await endTask(await openHouse(), params.id ?? '', note));
});

export const ALL = onlyMethods('POST');
