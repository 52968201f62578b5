import { CraftFigureDoor, type CraftFigure } from '../../../../server/doors/craft-figure';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { setCraftFigure } from '../../../../server/services/cupboard/cupboard';

export const PUT = endpoint(async ({ params, request }) => {
  const { maxPct } = await readShaped<CraftFigure>(CraftFigureDoor, request);
  return answerJson(await setCraftFigure(await openHouse(), params.id ?? '', maxPct));
});

export const ALL = onlyMethods('PUT');
