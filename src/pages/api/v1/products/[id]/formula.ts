import { SaveFormulaDoor, type SaveFormula } from '../../../../../server/doors/save-formula';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { saveProductFormula } from '../../../../../server/services/worktable/products';

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, formula } = await readShaped<SaveFormula>(SaveFormulaDoor, request);
  const saved = await saveProductFormula(await openHouse(), params.id ?? '', revision, formula);
  return answerJson(saved, 'stale' in saved ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
