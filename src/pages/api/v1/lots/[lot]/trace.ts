import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { traceLot } from '../../../../../server/store/trace';

export const GET = endpoint(async ({ params }) =>
  answerJson(await traceLot(await openHouse(), params.lot ?? '')),
);

export const ALL = onlyMethods('GET');
