import { database } from '../../../../server/database';
import { NewProductDoor, type NewProduct } from '../../../../server/doors/new-product';
import { checkShape } from '../../../../server/doors/shape';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../../server/http';
import { createProduct } from '../../../../server/services/products';

export const POST = endpoint(async ({ request }) => {
  const shaped = checkShape<NewProduct>(NewProductDoor, await readJson(request));
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  return answerJson(await createProduct(await database(), shaped.value.name.trim()), 201);
});

export const ALL = onlyMethods('POST');
