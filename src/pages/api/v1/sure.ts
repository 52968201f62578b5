import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { sureData } from '../../../server/services/rack/sure';

/** What was foretold of the last batches and of sales, beside what came, and how each kind held. */
export const GET = endpoint(async () => answerJson(await sureData(await openHouse())));

export const ALL = onlyMethods('GET');
