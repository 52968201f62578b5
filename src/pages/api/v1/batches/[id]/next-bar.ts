import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { requireBatch } from '../../../../../server/store/batches';
import { nextBarOf } from '../../../../../server/store/cures';

/** Which bar to weigh on which day, so that the day it is ready is known best. */
export const GET = endpoint(async ({ params }) => {
  const house = await openHouse();
  const { batch } = await requireBatch(house, params.id ?? '');
  return answerJson({ next: await nextBarOf(house, batch) });
});

export const ALL = onlyMethods('GET');
