import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { rescueOf } from '../../../../../server/services/pour/rescue';

/** The smallest additions that bring what is in the pot back within its bounds, or what it becomes. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await rescueOf(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
