import { NewBatchDoor, type NewBatch } from '../../../../server/doors/batch';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { beginBatch } from '../../../../server/services/pour/batches';
import { listBatches } from '../../../../server/store/batches';

export const GET = endpoint(async ({ url }) => {
  const [state, product] = [url.searchParams.get('state') || null, url.searchParams.get('product') || null];
  return answerJson({ batches: await listBatches(await openHouse(), { state, product }) });
});

export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const wanted = await readShaped<NewBatch>(NewBatchDoor, request);
  return answerJson(await beginBatch(await openHouse(), wanted, key), 201);
});

export const ALL = onlyMethods('GET', 'POST');
