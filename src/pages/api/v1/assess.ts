import { database } from '../../../server/database';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../server/http';
import { assessInput } from '../../../server/services/assessment';
import { storedFor } from '../../../server/services/cupboard';

export const POST = endpoint(async ({ request }) => {
  const input = await readJson(request);
  const result = assessInput(input, await storedFor(await database()));
  if (!result.ok) throw new HttpFault(422, result.errors);
  return answerJson(result.assessment);
});

export const ALL = onlyMethods('POST');
