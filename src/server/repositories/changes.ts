/** Changes that were looked at, and tasks. */
import type { Knex } from 'knex';
import { ordered } from '../../core/change/effects';
import { nothingShared, unpackEffects, type PackedEffects } from '../../core/change/packed';
import type { Change, Effect } from '../../core/change/types';
import type { ChangeDecision, ChangeEntry, ChangeState, Task } from '../../core/records/watch';

/** What a preview found. */
export interface ChangeResult {
  effects: Effect[];
  unchanged: number;
}

/** What a preview found, piece by piece as threads told it: each the JSON text of a `PackedEffects`. */
export interface FoundParts {
  parts: string[];
  touched: number;
  worse: number;
  unchanged: number;
}

/** As it is kept; what was looked at before effects were packed holds them as they are. */
interface KeptResult {
  parts?: PackedEffects[];
  effects?: Effect[];
  unchanged: number;
}

interface ChangeRow {
  id: string;
  at: string;
  body: string;
  words: string;
  state: ChangeState;
  stamp: string;
  decision: string | null;
  touched: number | null;
  worse: number | null;
}

export interface StoredChange extends ChangeEntry {
  /** Names the store it was previewed in. */
  stamp: string;
}

const fromRow = (row: ChangeRow): StoredChange => ({
  id: row.id,
  at: row.at,
  change: JSON.parse(row.body) as Change,
  words: row.words,
  state: row.state,
  stamp: row.stamp,
  decision: row.decision === null ? null : (JSON.parse(row.decision) as ChangeDecision),
  touched: row.touched,
  worse: row.worse,
});

/** Without what was found, which may be large. */
const COLUMNS = ['id', 'at', 'body', 'words', 'state', 'stamp', 'decision', 'touched', 'worse'];

/** Keeps a change that is being looked at. */
export async function addChange(db: Knex, change: StoredChange): Promise<void> {
  const { id, at, words, state, stamp } = change;
  await db('changes').insert({ id, at, words, state, stamp, body: JSON.stringify(change.change) });
}

/** Keeps how looking at it ended, unless it ended already. */
export async function endChange(
  db: Knex,
  id: string,
  state: ChangeState,
  found: FoundParts | null = null,
): Promise<void> {
  const kept = found && {
    result: `{"parts":[${found.parts.join(',')}],"unchanged":${found.unchanged}}`,
    touched: found.touched,
    worse: found.worse,
  };
  await db('changes')
    .where({ id, state: 'running' })
    .update({ state, ...kept });
}

/** Looks that were under way when the application ended will not end any more. */
export async function endOpenChanges(db: Knex): Promise<void> {
  await db('changes').where('state', 'running').update({ state: 'failed' });
}

/** The change of that id, or null. */
export async function findChange(db: Knex, id: string): Promise<StoredChange | null> {
  const row: ChangeRow | undefined = await db('changes').where('id', id).first(COLUMNS);
  return row ? fromRow(row) : null;
}

/** What a preview found, or null before it is done. */
export async function changeResult(db: Knex, id: string): Promise<ChangeResult | null> {
  const row: { result: string | null } | undefined = await db('changes').where('id', id).first('result');
  if (row?.result == null) return null;
  const { parts, effects = [], unchanged } = JSON.parse(row.result) as KeptResult;
  if (!parts) return { effects, unchanged };
  const shared = nothingShared();
  return { effects: ordered(parts.flatMap((part) => unpackEffects(part, shared))), unchanged };
}

/** Changes, newest first. */
export async function allChanges(db: Knex, most: number): Promise<StoredChange[]> {
  const rows: ChangeRow[] = await db('changes')
    .orderBy('at', 'desc')
    .orderBy('id')
    .limit(most)
    .select(COLUMNS);
  return rows.map(fromRow);
}

/** Keeps what was decided. */
export async function decideChange(trx: Knex, id: string, decision: ChangeDecision): Promise<void> {
  await trx('changes')
    .where('id', id)
    .update({ decision: JSON.stringify(decision) });
}

interface TaskRow {
  body: string;
  done_at: string | null;
}

/** Adds a task. */
export async function addTask(trx: Knex, task: Task): Promise<void> {
  const { id, change, at, doneAt } = task;
  await trx('tasks').insert({ id, change_id: change, at, done_at: doneAt, body: JSON.stringify(task) });
}

/** Tasks, those that wait first, then by age; of one change where asked. */
export async function allTasks(db: Knex, change: string | null = null): Promise<Task[]> {
  const query = db<TaskRow>('tasks').orderByRaw('done_at is not null, at, rowid');
  const rows = await (change === null ? query : query.where('change_id', change));
  return rows.map(({ body }) => JSON.parse(body) as Task);
}

/** The bar a task is about, or whose batch or label it is about. */
const BAR_OF_TASK = `case json_extract(body, '$.what')
  when 'bar' then json_extract(body, '$.subject')
  when 'batch' then (select product_id from batches where id = json_extract(tasks.body, '$.subject'))
  when 'issued' then (select product_id from issued_labels where id = json_extract(tasks.body, '$.subject'))
end`;
type TaskWithBar = Pick<TaskRow, 'body'> & { bar: string | null };
const withBar = ({ body, bar }: TaskWithBar): Task => ({ ...(JSON.parse(body) as Task), bar });

/** Tasks that wait, oldest first, or that were done, newest first: so many from a place on, and how many there are. */
export async function someTasks(
  db: Knex,
  isDone: boolean,
  { from, most }: { from: number; most: number },
): Promise<{ tasks: Task[]; count: number }> {
  const those = () => (isDone ? db('tasks').whereNotNull('done_at') : db('tasks').whereNull('done_at'));
  const [row] = await those().count<{ count: number }[]>({ count: '*' });
  const rows: TaskWithBar[] = await those()
    .select('body', db.raw(`${BAR_OF_TASK} as bar`))
    .orderByRaw(isDone ? 'done_at desc, rowid desc' : 'at, rowid')
    .limit(most)
    .offset(from);
  return { tasks: rows.map(withBar), count: row!.count };
}

/** Tasks that wait, oldest first, with the bars they are about; of some bars alone where asked. */
export async function openTasks(db: Knex, bars: readonly string[] | null = null): Promise<Task[]> {
  const query = db('tasks').whereNull('done_at').orderBy('rowid');
  if (bars) void query.whereRaw(`${BAR_OF_TASK} in (select value from json_each(?))`, JSON.stringify(bars));
  const rows: TaskWithBar[] = await query.select('body', db.raw(`${BAR_OF_TASK} as bar`));
  return rows.map(withBar);
}

/** The task of that id, or null. */
export async function findTask(db: Knex, id: string): Promise<Task | null> {
  const row: TaskRow | undefined = await db('tasks').where('id', id).first();
  return row ? (JSON.parse(row.body) as Task) : null;
}

/** Keeps a task as it stands. */
export async function putTask(trx: Knex, task: Task): Promise<void> {
  await trx('tasks')
    .where('id', task.id)
    .update({ done_at: task.doneAt, body: JSON.stringify(task) });
}

/** Names everything of the bars that a preview reads, so that a bar changed since is noticed. */
export async function barsStamp(db: Knex): Promise<string> {
  const [row] = await db.raw<Record<string, number | null>[]>(
    `select (select count(*) from products) as bars, (select sum(revision) from products) as details,
            (select sum(revision) from formula_versions) as formulas, (select sum(revision) from lots) as lots`,
  );
  return Object.values(row!).join(' ');
}
