import { NewPartDoor } from '../../../../../server/doors/batch-part';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { makePart, type NewPart } from '../../../../../server/services/pour/batch-part';

/** Makes a material of what a batch left: `{ what, name, massG }`. */
export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const part = await readShaped<NewPart>(NewPartDoor, request);
  return answerJson(await makePart(await openHouse(), params.id ?? '', part, key), 201);
});

export const ALL = onlyMethods('POST');
