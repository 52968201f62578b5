import { NewProductDoor, type NewProduct } from '../../../../../server/doors/product';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { duplicateProduct } from '../../../../../server/services/worktable/products';

export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const { name } = await readShaped<NewProduct>(NewProductDoor, request);
  return answerJson(await duplicateProduct(await openHouse(), params.id ?? '', name.trim(), key), 201);
});

export const ALL = onlyMethods('POST');
