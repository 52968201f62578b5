import type { ProductDetails } from '../../../../../core/records/product';
import { ProductDetailsDoor } from '../../../../../server/doors/product';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { changeDetails } from '../../../../../server/store/products';

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, ...details } = await readShaped<ProductDetails & { revision: number }>(
    ProductDetailsDoor,
    request,
  );
  const changed = await changeDetails(await openHouse(), params.id ?? '', revision, details);
  return answerJson(changed, 'stale' in changed ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
