import { answerFile, endpoint, onlyMethods } from '../../../../server/http';
import { today } from '../../../../server/config';
import { packedArchive } from '../../../../server/services/archive';

/** Everything as one ZIP. */
export const GET = endpoint(async () =>
  answerFile(await packedArchive(null), 'application/zip', `proportia-${today()}.zip`),
);

export const ALL = onlyMethods('GET');
