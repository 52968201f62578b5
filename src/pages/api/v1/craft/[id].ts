import { database } from '../../../../server/database';
import { CraftFigureDoor, type CraftFigure } from '../../../../server/doors/craft-figure';
import { checkShape } from '../../../../server/doors/shape';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../../server/http';
import { setCraftFigure } from '../../../../server/services/cupboard';

export const PUT = endpoint(async ({ params, request }) => {
  const shaped = checkShape<CraftFigure>(CraftFigureDoor, await readJson(request));
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  return answerJson(await setCraftFigure(await database(), params.id ?? '', shaped.value.maxPct ?? null));
});

export const ALL = onlyMethods('PUT');
