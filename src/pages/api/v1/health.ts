import { database } from '../../../server/database';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';

export const GET = endpoint(async () => {
  await (await database()).raw('select 1');
  return answerJson({ status: 'ready' });
});

export const ALL = onlyMethods('GET');
