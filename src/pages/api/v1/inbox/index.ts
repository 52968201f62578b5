import { database } from '../../../../server/database';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { inboxEntries } from '../../../../server/repositories/inbox';

export const GET = endpoint(async () => answerJson({ papers: await inboxEntries(await database()) }));

export const ALL = onlyMethods('GET');
