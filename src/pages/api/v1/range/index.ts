import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { rangeData } from '../../../../server/services/range/range';

/** Every bar in one row; those still being reckoned are marked, and come on asking again. */
export const GET = endpoint(async () => answerJson(await rangeData(await openHouse())));

export const ALL = onlyMethods('GET');
