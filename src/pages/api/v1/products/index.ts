import { database } from '../../../../server/database';
import { NewProductDoor, type NewProduct } from '../../../../server/doors/product';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { createProduct } from '../../../../server/services/products';

export const POST = endpoint(async ({ request }) => {
  const asked = await readShaped<NewProduct>(NewProductDoor, request);
  return answerJson(await createProduct(await database(), asked.name.trim()), 201);
});

export const ALL = onlyMethods('POST');
