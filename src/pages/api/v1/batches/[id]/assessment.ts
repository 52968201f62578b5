import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { assessBatch } from '../../../../../server/services/pour/batches';

export const GET = endpoint(async ({ params }) =>
  answerJson(await assessBatch(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
