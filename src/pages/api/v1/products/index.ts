import { NewProductDoor, type NewProduct } from '../../../../server/doors/product';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { createProduct } from '../../../../server/services/worktable/products';

export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const wanted = await readShaped<NewProduct>(NewProductDoor, request);
  const made = await createProduct(await openHouse(), { ...wanted, name: wanted.name.trim() }, key);
  return answerJson(made, 201);
});

export const ALL = onlyMethods('POST');
