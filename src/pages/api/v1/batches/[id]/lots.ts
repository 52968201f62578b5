import { openHouse } from '../../../../../server/house';
import { FoundLotDoor, type FoundLot } from '../../../../../server/doors/shelf';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { batchLots } from '../../../../../server/services/pour/bench';
import { findLotAtBench } from '../../../../../server/services/pour/new-lot';

/** The lots of what a batch holds as they are now, and the place of the last event that they are without. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await batchLots(await openHouse(), params.id ?? '')),
);

/** A bottle that is not on file: a lot is made of it, numbered as the maker numbers. */
export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const found = await readShaped<FoundLot>(FoundLotDoor, request);
  return answerJson(await findLotAtBench(await openHouse(), params.id ?? '', found, key), 201);
});

export const ALL = onlyMethods('GET', 'POST');
