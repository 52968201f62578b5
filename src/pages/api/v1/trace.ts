import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { traceCode } from '../../../server/store/trace';

export const GET = endpoint(async ({ url }) =>
  answerJson(await traceCode(await openHouse(), url.searchParams.get('code') ?? '')),
);

export const ALL = onlyMethods('GET');
