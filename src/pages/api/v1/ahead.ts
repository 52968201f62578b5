import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { lookAhead } from '../../../server/store/ahead';

/** What falls due in the next two years if nothing is done. */
export const GET = endpoint(async () => answerJson(await lookAhead(await openHouse())));

export const ALL = onlyMethods('GET');
