import { DeliveryDoor, type Delivery } from '../../../../server/doors/shelf';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { takeDelivery } from '../../../../server/store/lots';

/** Takes a delivery of many things down at once. */
export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const delivery = await readShaped<Delivery>(DeliveryDoor, request);
  return answerJson(await takeDelivery(await openHouse(), delivery, key), 201);
});

export const ALL = onlyMethods('POST');
