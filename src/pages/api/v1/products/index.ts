import { NewProductDoor, type NewProduct } from '../../../../server/doors/product';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { createProduct } from '../../../../server/services/worktable/products';

export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const { name } = await readShaped<NewProduct>(NewProductDoor, request);
  return answerJson(await createProduct(await openHouse(), name.trim(), key), 201);
});

export const ALL = onlyMethods('POST');
