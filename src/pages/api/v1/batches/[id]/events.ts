import { checkEvents } from '../../../../../server/doors/batch';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../../../server/http';
import { addEvents } from '../../../../../server/services/batches';

export const POST = endpoint(async ({ params, request }) => {
  const checked = checkEvents(await readJson(request));
  if (!checked.ok) throw new HttpFault(422, checked.errors);
  const added = await addEvents(await openHouse(), params.id ?? '', checked.body);
  return 'stale' in added ? answerJson(added.stale, 409) : answerJson(added);
});

export const ALL = onlyMethods('POST');
