import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { substitutesFor } from '../../../../../server/services/worktable/substitutes';

/** What could take its place, ranked by what it does to the bars that hold it. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await substitutesFor(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
