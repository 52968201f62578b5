import { database } from '../../../../../server/database';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { worktableData } from '../../../../../server/services/products';

export const GET = endpoint(async ({ params }) =>
  answerJson(await worktableData(await database(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
