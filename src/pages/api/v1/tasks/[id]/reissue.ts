import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { reissueFor } from '../../../../../server/services/watch/tasks';

/** Issues the label a task speaks of anew, and ends the task with it. */
export const POST = endpoint(async ({ params }) =>
  answerJson(await reissueFor(await openHouse(), params.id ?? ''), 201),
);

export const ALL = onlyMethods('POST');
