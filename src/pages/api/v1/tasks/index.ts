import { NewTaskDoor } from '../../../../server/doors/change';
import { openHouse } from '../../../../server/house';
import { placeFrom } from '../../../../server/range-query';
import { answerJson, endpoint, fault, onlyMethods, readShaped } from '../../../../server/http';
import { listTasks, makeTask, tasksFrom } from '../../../../server/services/watch/tasks';

/** All tasks; with `state=open` or `done`, some of those from the place `from` on, and their count. */
export const GET = endpoint(async ({ url }) => {
  const state = url.searchParams.get('state');
  if (state === null) return answerJson({ tasks: await listTasks(await openHouse()) });
  if (state !== 'open' && state !== 'done')
    throw fault(422, 'invalid', 'Ask for tasks that are open or done.', 'state');
  return answerJson(await tasksFrom(await openHouse(), state, placeFrom(url)));
});

/** A task made by hand, of what falls due. */
export const POST = endpoint(async ({ request }) => {
  const { words, dueOn } = await readShaped<{ words: string; dueOn: string | null }>(NewTaskDoor, request);
  return answerJson(await makeTask(await openHouse(), words, dueOn), 201);
});

export const ALL = onlyMethods('GET', 'POST');
