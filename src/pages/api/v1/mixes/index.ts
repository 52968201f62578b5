import type { MixPart } from '../../../../core/formula/mix';
import { MixDoor } from '../../../../server/doors/cupboard';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { createMix } from '../../../../server/services/cupboard/materials';

export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const { name, parts } = await readShaped<{ name: string; parts: MixPart[] }>(MixDoor, request);
  return answerJson(await createMix(await openHouse(), name.trim(), parts, key), 201);
});

export const ALL = onlyMethods('POST');
