import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { startDays } from '../../../../server/services/rack/next';

/** The day by which the next pour of a bar must start, by bar. */
export const GET = endpoint(async () => answerJson(await startDays(await openHouse())));

export const ALL = onlyMethods('GET');
