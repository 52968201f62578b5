import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { installation } from '../../../server/services/house/house';

/** This installation, its database looked over. */
export const GET = endpoint(async () => answerJson(await installation(await openHouse())));

export const ALL = onlyMethods('GET');
