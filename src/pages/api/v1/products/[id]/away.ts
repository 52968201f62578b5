import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { putAway } from '../../../../../server/services/worktable/products';

/** Puts a bar away: kept, but out of the range. */
export const PUT = endpoint(async ({ params }) =>
  answerJson({ product: await putAway(await openHouse(), params.id ?? '', true) }),
);

/** Brings it back. */
export const DELETE = endpoint(async ({ params }) =>
  answerJson({ product: await putAway(await openHouse(), params.id ?? '', false) }),
);

export const ALL = onlyMethods('PUT', 'DELETE');
