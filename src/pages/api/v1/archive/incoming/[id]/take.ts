import { TakeDoor } from '../../../../../../server/doors/house';
import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { takeArchive } from '../../../../../../server/services/house/archive';

/** Takes what is new, or what differs as well; all or nothing, after a backup. */
export const POST = endpoint(async ({ params, request }) => {
  const { which } = await readShaped<{ which: 'new' | 'all' }>(TakeDoor, request);
  return answerJson(await takeArchive((await openHouse()).db, params.id ?? '', which));
});

export const ALL = onlyMethods('POST');
