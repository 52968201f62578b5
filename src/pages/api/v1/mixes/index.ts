import type { MixPart } from '../../../../core/formula/mix';
import { database } from '../../../../server/database';
import { MixDoor } from '../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { createMix } from '../../../../server/services/materials';

export const POST = endpoint(async ({ request }) => {
  const { name, parts } = await readShaped<{ name: string; parts: MixPart[] }>(MixDoor, request);
  return answerJson(await createMix(await database(), name.trim(), parts), 201);
});

export const ALL = onlyMethods('POST');
