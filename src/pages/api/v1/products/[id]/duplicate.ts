import { database } from '../../../../../server/database';
import { NewProductDoor, type NewProduct } from '../../../../../server/doors/product';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { duplicateProduct } from '../../../../../server/services/products';

export const POST = endpoint(async ({ params, request }) => {
  const { name } = await readShaped<NewProduct>(NewProductDoor, request);
  return answerJson(await duplicateProduct(await database(), params.id ?? '', name.trim()), 201);
});

export const ALL = onlyMethods('POST');
