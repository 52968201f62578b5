import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { batchLots } from '../../../../../server/services/pour/bench';

/** The lots of what a batch holds as they are now, and the place of the last event that they are without. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await batchLots(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
