import { database } from '../../../../../../server/database';
import { answerJson, endpoint, onlyMethods } from '../../../../../../server/http';
import { withdrawPaper } from '../../../../../../server/services/materials';

export const DELETE = endpoint(async ({ params }) =>
  answerJson(await withdrawPaper(await database(), params.id ?? '', params.paper ?? '')),
);

export const ALL = onlyMethods('DELETE');
