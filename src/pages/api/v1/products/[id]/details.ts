import { database } from '../../../../../server/database';
import { ProductDetailsDoor } from '../../../../../server/doors/product';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { changeDetails, type ProductDetails } from '../../../../../server/services/products';

export const PUT = endpoint(async ({ params, request }) => {
  const details = await readShaped<ProductDetails>(ProductDetailsDoor, request);
  return answerJson({ product: await changeDetails(await database(), params.id ?? '', details) });
});

export const ALL = onlyMethods('PUT');
