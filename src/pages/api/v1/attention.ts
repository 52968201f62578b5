import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { attentionNow } from '../../../server/services/watch/attention';

/** What waits in places that are not open just now. */
export const GET = endpoint(async () => answerJson(await attentionNow(await openHouse())));

export const ALL = onlyMethods('GET');
