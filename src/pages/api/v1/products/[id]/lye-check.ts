import { LyeCheckDoor } from '../../../../../server/doors/product';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { checkLye } from '../../../../../server/services/worktable/products';

/** Keeps that the lye was found again by a second way. */
export const PUT = endpoint(async ({ params, request }) => {
  const check = await readShaped<LyeCheckDoor>(LyeCheckDoor, request);
  return answerJson({ product: await checkLye(await openHouse(), params.id ?? '', check) });
});

export const ALL = onlyMethods('PUT');
