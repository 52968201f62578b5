import type { MixPart } from '../../../../core/formula/mix';
import { MixChangeDoor } from '../../../../server/doors/cupboard';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { changeMix } from '../../../../server/services/cupboard/materials';

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, name, parts } = await readShaped<{ revision: number; name: string; parts: MixPart[] }>(
    MixChangeDoor,
    request,
  );
  const changed = await changeMix(await openHouse(), params.id ?? '', revision, name.trim(), parts);
  return answerJson(changed, 'stale' in changed ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
