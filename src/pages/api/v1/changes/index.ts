import { checkChange } from '../../../../server/doors/change';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../../server/http';
import { listChanges, previewChange } from '../../../../server/services/watch/changes';

export const GET = endpoint(async () => answerJson({ changes: await listChanges(await openHouse()) }));

/** Begins to look at a change; what it touches is found in the background. */
export const POST = endpoint(async ({ request }) => {
  const checked = checkChange(await readJson(request));
  if (!checked.ok) throw new HttpFault(422, checked.errors);
  return answerJson(await previewChange(await openHouse(), checked.change), 202);
});

export const ALL = onlyMethods('GET', 'POST');
