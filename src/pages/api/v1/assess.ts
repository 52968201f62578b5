import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../server/http';
import { openHouse } from '../../../server/house';
import { assessInput } from '../../../server/services/worktable/assessment';

export const POST = endpoint(async ({ request }) => {
  const input = await readJson(request);
  const result = await assessInput(await openHouse(), input);
  if (!result.ok) throw new HttpFault(422, result.errors);
  return answerJson(result.assessment);
});

export const ALL = onlyMethods('POST');
