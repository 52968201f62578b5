import { database } from '../../../../../server/database';
import { SaveFormulaDoor, type SaveFormula } from '../../../../../server/doors/save-formula';
import { checkShape } from '../../../../../server/doors/shape';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../../../server/http';
import { saveProductFormula } from '../../../../../server/services/products';

export const PUT = endpoint(async ({ params, request }) => {
  const shaped = checkShape<SaveFormula>(SaveFormulaDoor, await readJson(request));
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  const { revision, formula } = shaped.value;
  const saved = await saveProductFormula(await database(), params.id ?? '', revision, formula);
  return answerJson(saved, 'stale' in saved ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
