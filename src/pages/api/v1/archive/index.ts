import { answerStream, endpoint, onlyMethods } from '../../../../server/http';
import { today } from '../../../../server/config';
import { packedArchive } from '../../../../server/services/archive';

/** Everything as one ZIP. */
export const GET = endpoint(async () =>
  answerStream(await packedArchive(null), 'application/zip', `proportia-${today()}.zip`),
);

export const ALL = onlyMethods('GET');
