import { NewBatchDoor, type NewBatch } from '../../../../server/doors/batch';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { planPour } from '../../../../server/services/pour/pour-plan';

export const POST = endpoint(async ({ request }) => {
  const wanted = await readShaped<NewBatch>(NewBatchDoor, request);
  return answerJson(await planPour(await openHouse(), wanted));
});

export const ALL = onlyMethods('POST');
