import { checkEvents } from '../../../../../server/doors/batch';
import { BENCH_ONLY, isBenchEvent } from '../../../../../server/front/bench';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, fault, HttpFault, onlyMethods, readJson } from '../../../../../server/http';
import { addEvents } from '../../../../../server/store/batch-events';

export const POST = endpoint(async ({ params, request, locals }) => {
  const checked = checkEvents(await readJson(request));
  if (!checked.ok) throw new HttpFault(422, checked.errors);
  const beyond = locals.session === 'bench' ? checked.body.events.findIndex((one) => !isBenchEvent(one)) : -1;
  if (beyond >= 0) throw fault(403, 'bench-only', BENCH_ONLY, `events.${beyond}.type`);
  const added = await addEvents(await openHouse(), params.id ?? '', checked.body);
  return 'stale' in added ? answerJson(added.stale, 409) : answerJson(added);
});

export const ALL = onlyMethods('POST');
