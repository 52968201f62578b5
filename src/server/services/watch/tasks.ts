/** What has to be done: made by accepted changes and by hand, each ended with what was done. */
import type { Knex } from 'knex';
import { MARKETS, type Market } from '../../../core/formula/types';
import type { Country } from '../../../core/labels/languages';
import type { Task } from '../../../core/records/watch';
import type { IssuedLabel } from '../../../core/records/wrap';
import type { House } from '../../house';
import { fault } from '../../http';
import { allTasks, findTask, putTask, someTasks } from '../../repositories/changes';
import { findBatch, findBatchByCode } from '../../repositories/batches';
import { findIssued } from '../../repositories/wraps';
import { issueLabel } from '../wrap/labels';
import { writing } from '../../store/writing';
import { keepTask } from './change-decide';

/** Tasks, those that wait first. */
export const listTasks = ({ db }: House): Promise<Task[]> => allTasks(db);

/** Tasks told at once, of those that wait and of those done. */
const TASKS_AT_ONCE = { open: 30, done: 10 } as const;

/** Tasks that wait or were done, from a place on, and how many there are. */
export const tasksFrom = ({ db }: House, state: 'open' | 'done', from: number) =>
  someTasks(db, state === 'done', { from, most: TASKS_AT_ONCE[state] });

/** A task of what falls due. */
export function makeTask({ db, now }: House, words: string, dueOn: string | null): Promise<Task> {
  return writing(db, (trx) =>
    keepTask(trx, now, null, { kind: 'look', what: 'ahead', subject: '', market: null, words, dueOn }),
  );
}

/** The open task; 404, and 409 where it is done. */
async function requireOpenTask(db: Knex, id: string): Promise<Task> {
  const task = await findTask(db, id);
  if (!task) throw fault(404, 'unknown-task', `There is no task "${id}".`, 'id');
  if (task.doneAt !== null) throw fault(409, 'done', 'This task is done already.', 'id');
  return task;
}

/** The bar, market and batch whose label a task speaks of; null where it speaks of none. */
async function labelOf(
  db: Knex,
  { kind, subject, market }: Task,
): Promise<{ product: string; market: Market; batch: string | null; country: Country | null } | null> {
  const known = MARKETS.find((one) => one === market);
  if (kind === 'relabel' && known) {
    const batch = await findBatch(db, subject);
    return batch && { product: batch.product, market: known, batch: batch.id, country: null };
  }
  const label = kind === 'reissue' ? await findIssued(db, subject) : null;
  if (!label) return null;
  const batch = await findBatchByCode(db, label.batchCode);
  const isOfIt = batch?.product === label.productId;
  const { productId: product, market: where, country = null } = label;
  return { product, market: where, batch: isOfIt ? batch.id : null, country };
}

/**
 * Issues the label that a task speaks of anew and ends the task with it; asked twice, it makes one label. 404, 409
 * where the task is done, 422 where it is about no label or something stands in the way of a print.
 */
export async function reissueFor(house: House, id: string): Promise<{ task: Task; label: IssuedLabel }> {
  const found = await labelOf(house.db, await requireOpenTask(house.db, id));
  if (!found)
    throw fault(422, 'no-label', 'This task is about no label that is on file. Issue it on the wrap.', 'id');
  const label = await issueLabel(house, found.product, found.market, `task ${id}`, found);
  const note = `Issued anew for ${label.market}: ${label.id}, the list as of ${label.issuedOn}.`;
  return { task: await endTask(house, id, note), label };
}

/** Ends a task with what was done; 404, and 409 where it is done. */
export function endTask({ db, now }: House, id: string, note: string): Promise<Task> {
  return writing(db, async (trx) => {
    const task = await requireOpenTask(trx, id);
    const ended: Task = { ...task, doneAt: now, doneNote: note };
    await putTask(trx, ended);
    return ended;
  });
}
