import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { traceBatch } from '../../../../../server/store/trace';

export const GET = endpoint(async ({ params }) =>
  answerJson(await traceBatch(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
