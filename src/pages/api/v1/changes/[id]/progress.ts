import { openHouse } from '../../../../../server/house';
import { endpoint, onlyMethods } from '../../../../../server/http';
import { followChange, requireChange } from '../../../../../server/services/watch/changes';
import { eventStream } from '../../../../../server/stream';

/** How far a look is, line by line, until it has ended. */
export const GET = endpoint(async ({ params, request }) => {
  const house = await openHouse();
  const { id } = await requireChange(house, params.id ?? '');
  return eventStream(request, (send) => followChange(house, id, send));
});

export const ALL = onlyMethods('GET');
