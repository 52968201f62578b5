import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { tryBar } from '../../../../../server/services/scent/scent';

/** A bar to try a blend in, with the materials it holds. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await tryBar(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
