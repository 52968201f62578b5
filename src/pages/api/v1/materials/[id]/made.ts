import { MadeLotDoor, type MadeLot } from '../../../../../server/doors/shelf';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { makeOfLots } from '../../../../../server/services/cupboard/made-lots';

/** A lot of a mix or of lye stock, made of lots. */
export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const made = await readShaped<MadeLot>(MadeLotDoor, request);
  return answerJson(await makeOfLots(await openHouse(), params.id ?? '', made, key), 201);
});

export const ALL = onlyMethods('POST');
