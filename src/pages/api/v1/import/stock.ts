import type { ImportedStock } from '../../../../core/records/import';
import { ImportStockDoor } from '../../../../server/doors/import';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { importStock } from '../../../../server/services/house/import-stock';

/** Looks at materials and lots of a spreadsheet, or takes them: all or none. 422 with every fault where some cannot be taken. */
export const POST = endpoint(async ({ request }) => {
  const { preview, rows } = await readShaped<{ preview: boolean; rows: ImportedStock[] }>(
    ImportStockDoor,
    request,
  );
  const result = await importStock(await openHouse(), rows, preview);
  const isRefused = !preview && rows.length > 0 && result.taken === 0;
  if (!isRefused) return answerJson(result, result.taken > 0 ? 201 : 200);
  const errors = result.rows.flatMap(({ row, title, fault }, at) =>
    fault === null ? [] : [{ path: `rows.${at}`, code: 'row', message: `Row ${row}, ${title}: ${fault}` }],
  );
  return answerJson({ errors }, 422);
});

export const ALL = onlyMethods('POST');
