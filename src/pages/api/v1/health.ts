import { database } from '../../../server/database';
import { answerJson, endpoint } from '../../../server/http';

export const GET = endpoint(async () => {
  await (await database()).raw('select 1');
  return answerJson({ status: 'ready' });
});
