import { NewTaskDoor } from '../../../../server/doors/change';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { listTasks, makeTask } from '../../../../server/services/watch/tasks';

export const GET = endpoint(async () => answerJson({ tasks: await listTasks(await openHouse()) }));

/** A task made by hand, of what falls due. */
export const POST = endpoint(async ({ request }) => {
  const { words, dueOn } = await readShaped<{ words: string; dueOn: string | null }>(NewTaskDoor, request);
  return answerJson(await makeTask(await openHouse(), words, dueOn), 201);
});

export const ALL = onlyMethods('GET', 'POST');
