import { answerStream, endpoint, onlyMethods } from '../../../../../server/http';
import { openHouse } from '../../../../../server/house';
import { packedArchive } from '../../../../../server/services/house/archive';

/** One bar to hand over, with the materials and papers it needs. */
export const GET = endpoint(async ({ params }) => {
  const id = params.id ?? '';
  return answerStream(await packedArchive(await openHouse(), id), 'application/zip', `${id}.zip`);
});

export const ALL = onlyMethods('GET');
