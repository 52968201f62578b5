import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { twinOf } from '../../../../../server/services/pour/twin';

/** How the batch that this one should match was poured. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await twinOf(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
