import type { Mould } from '../../../core/making/size';
import { database } from '../../../server/database';
import { MouldsDoor } from '../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { findMoulds, putMoulds } from '../../../server/repositories/settings';

export const GET = endpoint(async () => answerJson({ moulds: await findMoulds(await database()) }));

export const PUT = endpoint(async ({ request }) => {
  const { moulds } = await readShaped<{ moulds: Mould[] }>(MouldsDoor, request);
  await putMoulds(await database(), moulds);
  return answerJson({ moulds });
});

export const ALL = onlyMethods('GET', 'PUT');
