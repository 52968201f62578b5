import { SalesDoor, type Sales } from '../../../server/doors/sales';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { recordSales } from '../../../server/services/rack/sales';

/** What went out: all rows or none; `preview: true` only looks. */
export const POST = endpoint(async ({ request }) => {
  const { rows, preview = false, by } = await readShaped<Sales>(SalesDoor, request);
  const done = await recordSales(await openHouse(), rows, { by, isPreview: preview });
  return answerJson(done, preview ? 200 : 201);
});

export const ALL = onlyMethods('POST');
