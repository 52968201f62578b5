import type { NextPlans } from '../../../core/records/next';
import { PlansDoor } from '../../../server/doors/next';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { keepPlans, nextData } from '../../../server/services/rack/next';

export const GET = endpoint(async () => answerJson(await nextData(await openHouse())));

/** Keeps what is wanted by a day and what is planned; 409 with the newer where it was changed in between. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, ...plans } = await readShaped<NextPlans & { revision: number }>(PlansDoor, request);
  const { data, isStale } = await keepPlans(await openHouse(), revision, plans);
  return answerJson(data, isStale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
