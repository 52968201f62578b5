import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { inboxNow } from '../../../../server/services/papers/letters';

/** Papers that came, after a look into the folder. */
export const GET = endpoint(async () => answerJson(await inboxNow(await openHouse())));

export const ALL = onlyMethods('GET');
