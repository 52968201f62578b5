/** What has to be done: made by accepted changes and by hand, each ended with what was done. */
import type { Task } from '../../core/records/watch';
import type { House } from '../house';
import { fault } from '../http';
import { allTasks, findTask, putTask } from '../repositories/changes';
import { writing } from '../store/writing';
import { keepTask } from './change-decide';

/** Tasks, those that wait first. */
export const listTasks = ({ db }: House): Promise<Task[]> => allTasks(db);

/** A task of what falls due. */
export function makeTask({ db, now }: House, words: string, dueOn: string | null): Promise<Task> {
  return writing(db, (trx) =>
    keepTask(trx, now, null, { kind: 'look', what: 'ahead', subject: '', market: null, words, dueOn }),
  );
}

/** Ends a task with what was done; 404, and 409 where it is done. */
export function endTask({ db, now }: House, id: string, note: string): Promise<Task> {
  return writing(db, async (trx) => {
    const task = await findTask(trx, id);
    if (!task) throw fault(404, 'unknown-task', `There is no task "${id}".`, 'id');
    if (task.doneAt !== null) throw fault(409, 'done', 'This task is done already.', 'id');
    const ended: Task = { ...task, doneAt: now, doneNote: note };
    await putTask(trx, ended);
    return ended;
  });
}
