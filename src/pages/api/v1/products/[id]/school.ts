import type { School } from '../../../../../core/formula/answer';
import type { Market } from '../../../../../core/formula/types';
import { SchoolDoor } from '../../../../../server/doors/wrap';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { chooseSchool } from '../../../../../server/services/wrap/wrap';

/** Chooses the school of the list in a market, for worktable and wrap alike. */
export const PUT = endpoint(async ({ params, request }) => {
  const { market, school } = await readShaped<{ market: Market; school: School }>(SchoolDoor, request);
  return answerJson({ saved: await chooseSchool(await openHouse(), params.id ?? '', market, school) });
});

export const ALL = onlyMethods('PUT');
