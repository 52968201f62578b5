import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { cancelChange, viewChange } from '../../../../../server/services/watch/changes';

export const GET = endpoint(async ({ params }) =>
  answerJson(await viewChange(await openHouse(), params.id ?? '')),
);

/** Stops looking. */
export const DELETE = endpoint(async ({ params }) =>
  answerJson(await cancelChange(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET', 'DELETE');
