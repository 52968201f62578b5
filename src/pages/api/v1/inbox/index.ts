import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { inboxEntries } from '../../../../server/repositories/inbox';

export const GET = endpoint(async () => answerJson({ papers: await inboxEntries((await openHouse()).db) }));

export const ALL = onlyMethods('GET');
