import { database } from '../../../../../server/database';
import { SaveFormulaDoor, type SaveFormula } from '../../../../../server/doors/save-formula';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { saveProductFormula } from '../../../../../server/services/products';

export const PUT = endpoint(async ({ params, request }) => {
  const asked = await readShaped<SaveFormula>(SaveFormulaDoor, request);
  const { revision, formula } = asked;
  const saved = await saveProductFormula(await database(), params.id ?? '', revision, formula);
  return answerJson(saved, 'stale' in saved ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
