import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { requireBatch } from '../../../../../server/store/batches';

export const GET = endpoint(async ({ params }) =>
  answerJson(await requireBatch(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
