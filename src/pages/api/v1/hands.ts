import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { handsNow } from '../../../server/services/watch/hands';

/** What needs a hand, grave first: everything, or of one bar (`?bar=`) or batch (`?batch=`). */
export const GET = endpoint(async ({ url: { searchParams: query } }) =>
  answerJson({
    hands: await handsNow(await openHouse(), { bar: query.get('bar'), batch: query.get('batch') }),
  }),
);

export const ALL = onlyMethods('GET');
