import type { StatedLot } from '../../../../../../core/records/cupboard';
import { LotDoor } from '../../../../../../server/doors/cupboard';
import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../../server/http';
import { addNewLot } from '../../../../../../server/services/cupboard/lots';

export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const lot = await readShaped<StatedLot>(LotDoor, request);
  return answerJson(await addNewLot(await openHouse(), params.id ?? '', lot, key), 201);
});

export const ALL = onlyMethods('POST');
