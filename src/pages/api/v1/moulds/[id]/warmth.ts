import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { mouldWarmth } from '../../../../../server/services/rack/warmth';

/** What was measured of pours in this mould. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await mouldWarmth(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
