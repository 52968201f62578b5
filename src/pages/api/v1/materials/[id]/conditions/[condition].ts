import type { ShownCondition } from '../../../../../../core/paperwork/conditions';
import { ShownDoor } from '../../../../../../server/doors/conditions';
import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { showCondition } from '../../../../../../server/services/cupboard/conditions';

/** What a paper shows. */
export const PUT = endpoint(async ({ params, request }) => {
  const shown = await readShaped<Omit<ShownCondition, 'condition'>>(ShownDoor, request);
  return answerJson(await showCondition(await openHouse(), params.id ?? '', params.condition ?? '', shown));
});

/** Takes the newest paper back. */
export const DELETE = endpoint(async ({ params }) =>
  answerJson(await showCondition(await openHouse(), params.id ?? '', params.condition ?? '', null)),
);

export const ALL = onlyMethods('PUT', 'DELETE');
