import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { dropOwnLimit } from '../../../../../server/services/house/rulebook';

/** Takes one of the house's own limits away. */
export const DELETE = endpoint(async ({ params }) => {
  await dropOwnLimit(await openHouse(), params.id ?? '');
  return answerJson({});
});

export const ALL = onlyMethods('DELETE');
