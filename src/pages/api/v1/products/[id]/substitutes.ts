import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { substitutesOnLine } from '../../../../../server/services/worktable/substitutes';

/** What could stand on a line (`?line=`) of the bar, ranked by what it does to it. */
export const GET = endpoint(async ({ params, url }) =>
  answerJson(await substitutesOnLine(await openHouse(), params.id ?? '', url.searchParams.get('line') ?? '')),
);

export const ALL = onlyMethods('GET');
