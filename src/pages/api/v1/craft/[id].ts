import { database } from '../../../../server/database';
import { CraftFigureDoor, type CraftFigure } from '../../../../server/doors/craft-figure';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { setCraftFigure } from '../../../../server/services/cupboard';

export const PUT = endpoint(async ({ params, request }) => {
  const asked = await readShaped<CraftFigure>(CraftFigureDoor, request);
  return answerJson(await setCraftFigure(await database(), params.id ?? '', asked.maxPct ?? null));
});

export const ALL = onlyMethods('PUT');
