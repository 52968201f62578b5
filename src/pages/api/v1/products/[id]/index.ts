import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { discardProduct, worktableData } from '../../../../../server/services/worktable/products';

export const GET = endpoint(async ({ params }) =>
  answerJson(await worktableData(await openHouse(), params.id ?? '')),
);

/** Deletes a bar that was never sold and has no label issued. */
export const DELETE = endpoint(async ({ params }) => {
  await discardProduct(await openHouse(), params.id ?? '');
  return answerJson({ removed: params.id });
});

export const ALL = onlyMethods('GET', 'DELETE');
