import { CountDoor, type ShelfCounted } from '../../../../server/doors/shelf';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { countLots } from '../../../../server/services/cupboard/lots';

/** The shelf counted: `{ rows: [{ lot, leftG }], reason }`, all or none. */
export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const counted = await readShaped<ShelfCounted>(CountDoor, request);
  return answerJson({ lots: await countLots(await openHouse(), counted, key) });
});

export const ALL = onlyMethods('POST');
