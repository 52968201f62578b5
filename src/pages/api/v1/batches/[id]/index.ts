import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { requireBatch } from '../../../../../server/services/batches';

export const GET = endpoint(async ({ params }) =>
  answerJson(await requireBatch(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
