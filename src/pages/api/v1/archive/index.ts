import { answerStream, endpoint, onlyMethods } from '../../../../server/http';
import { openHouse } from '../../../../server/house';
import { packedArchive } from '../../../../server/services/house/archive';

/** Everything as one ZIP. */
export const GET = endpoint(async () => {
  const house = await openHouse();
  return answerStream(await packedArchive(house, null), 'application/zip', `proportia-${house.today}.zip`);
});

export const ALL = onlyMethods('GET');
