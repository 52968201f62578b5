import type { MixPart } from '../../../../core/formula/mix';
import { database } from '../../../../server/database';
import { MixChangeDoor } from '../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { changeMix } from '../../../../server/services/materials';

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, name, parts } = await readShaped<{ revision: number; name: string; parts: MixPart[] }>(
    MixChangeDoor,
    request,
  );
  const saved = await changeMix(await database(), params.id ?? '', revision, name.trim(), parts);
  return answerJson(saved, 'stale' in saved ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
