import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { rackNow } from '../../../../server/services/rack/rack';

export const GET = endpoint(async () => answerJson(await rackNow(await openHouse())));

export const ALL = onlyMethods('GET');
