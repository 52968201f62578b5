import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { usesOf } from '../../../../../server/services/cupboard/materials';

/** The bars that use a material. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await usesOf(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
