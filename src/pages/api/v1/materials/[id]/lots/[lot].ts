import { database } from '../../../../../../server/database';
import { LotDoor } from '../../../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { discardLot, saveLot, type StatedLot } from '../../../../../../server/services/materials';

export const PUT = endpoint(async ({ params, request }) => {
  const lot = await readShaped<StatedLot>(LotDoor, request);
  return answerJson(await saveLot(await database(), params.id ?? '', params.lot ?? '', lot));
});

export const DELETE = endpoint(async ({ params }) =>
  answerJson(await discardLot(await database(), params.id ?? '', params.lot ?? '')),
);

export const ALL = onlyMethods('PUT', 'DELETE');
