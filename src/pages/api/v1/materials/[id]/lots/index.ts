import { database } from '../../../../../../server/database';
import { LotDoor } from '../../../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { saveLot, type StatedLot } from '../../../../../../server/services/materials';

export const POST = endpoint(async ({ params, request }) => {
  const lot = await readShaped<StatedLot>(LotDoor, request);
  return answerJson(await saveLot(await database(), params.id ?? '', null, lot), 201);
});

export const ALL = onlyMethods('POST');
