import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { receiveArchive } from '../../../../../server/services/house/archive';

/** An archive to be looked at; nothing is taken yet. */
export const POST = endpoint(async ({ request }) => answerJson(await receiveArchive(request), 201));

export const ALL = onlyMethods('POST');
