/** Batches and their events, which are only ever added. */
import type { Knex } from 'knex';
import { folded } from '../../core/folded';
import type { BatchEvent, EventOf } from '../../core/batch/types';
import { groupBy } from '../../core/group';
import type { WeighedBatch } from '../../core/batch/weighed';
import type { SaleName } from '../../core/stock/sales';
import type { BatchSummary } from '../../core/records/batch';

interface BatchRow {
  id: string;
  code: string;
  product_id: string;
  started_at: string;
  seq: number;
  state: string;
  quarantined: number;
  summary: string;
}

const summaryOf = ({ seq, summary }: Pick<BatchRow, 'seq' | 'summary'>): BatchSummary => ({
  ...(JSON.parse(summary) as BatchSummary),
  seq,
});

const toRow = (summary: BatchSummary, weighed: WeighedBatch | null) => ({
  id: summary.id,
  code: summary.code,
  product_id: summary.product,
  started_at: summary.startedAt,
  seq: summary.seq,
  state: summary.state,
  quarantined: summary.isQuarantined,
  summary: JSON.stringify(summary),
  weighed: weighed && JSON.stringify(weighed),
});

/** Adds a batch that is begun. */
export async function addBatch(trx: Knex, summary: BatchSummary): Promise<void> {
  await trx('batches').insert(toRow(summary, null));
}

/** Keeps how a batch stands, and what was weighed of it. */
export async function putBatch(
  trx: Knex,
  summary: BatchSummary,
  weighed: WeighedBatch | null,
): Promise<void> {
  await trx('batches').where('id', summary.id).update(toRow(summary, weighed));
}

/** The batch of that id, or null. */
export async function findBatch(db: Knex, id: string): Promise<BatchSummary | null> {
  const row: BatchRow | undefined = await db('batches').where('id', id).first();
  return row ? summaryOf(row) : null;
}

/** The batch of that code, or null. */
export async function findBatchByCode(db: Knex, code: string): Promise<BatchSummary | null> {
  const row: BatchRow | undefined = await db('batches').where('code', code).first();
  return row ? summaryOf(row) : null;
}

/** Newest first; without what was weighed, which is large and read by its own statements. */
const summaries = (db: Knex) =>
  db<BatchRow>('batches').orderBy('started_at', 'desc').orderByRaw('rowid desc').select('seq', 'summary');

/** Batches, newest first: all, or those of one product. */
export async function allBatches(db: Knex, product: string | null = null): Promise<BatchSummary[]> {
  const rows = await (product === null ? summaries(db) : summaries(db).where('product_id', product));
  return rows.map(summaryOf);
}

/** The state of a batch; a day after the cut it cures, whether anybody wrote that down or not. */
const STATE_NOW = "iif(state = 'cut' and json_extract(summary, '$.cutAt') <= ?, 'curing', state)";

export interface BatchQuery {
  /** Letters of a code or a bar's name. */
  find: string;
  /** Null is every state; `quarantined` stands on top of any. */
  state: string | null;
  /** Before this moment what was cut cures by itself. */
  dryBefore: string;
  /** From 1; one past the end gives the last. */
  page: number;
  size: number;
}

/** A page of batches, newest first, and how many there are. Two statements. */
export async function batchPage(
  db: Knex,
  { find, state, dryBefore, page, size }: BatchQuery,
): Promise<{ batches: BatchSummary[]; count: number; page: number }> {
  const matching = <Q extends Knex.QueryBuilder>(query: Q): Q => {
    if (find)
      query.whereRaw(
        "(instr(folded(code), ?) > 0 or instr(folded(json_extract(summary, '$.productName')), ?) > 0)",
        [folded(find), folded(find)],
      );
    if (state === 'quarantined') query.where('quarantined', 1);
    else if (state !== null)
      query
        .whereIn('state', state === 'curing' ? ['cut', 'curing'] : [state])
        .whereRaw(`${STATE_NOW} = ?`, [dryBefore, state]);
    return query;
  };
  const [{ count }] = (await matching(db('batches').count({ count: '*' }))) as [{ count: number }];
  const shown = Math.min(Math.max(1, page), Math.max(1, Math.ceil(count / size)));
  const rows = await matching(summaries(db))
    .limit(size)
    .offset((shown - 1) * size);
  return { batches: rows.map(summaryOf), count, page: shown };
}

/** The ids of all batches, in the order they were begun. */
export async function batchIds(db: Knex): Promise<string[]> {
  return (await db('batches').orderBy('rowid').select<{ id: string }[]>('id')).map(({ id }) => id);
}

/** Batches of these ids, newest first. */
export async function batchesById(db: Knex, ids: ReadonlySet<string>): Promise<BatchSummary[]> {
  return (await summaries(db).whereIn('id', [...ids])).map(summaryOf);
}

/** Codes taken by batches that begin so. */
export async function takenCodes(trx: Knex, base: string): Promise<ReadonlySet<string>> {
  const rows: { code: string }[] = await trx('batches').select('code').where('code', 'like', `${base}%`);
  return new Set(rows.map(({ code }) => code));
}

/** What batches that were cut go by in a list of what went out, oldest first. */
export async function saleNames(db: Knex): Promise<(SaleName & { seq: number })[]> {
  return db('batches as b')
    .join('batch_standings as s', 's.batch_id', 'b.id')
    .whereNotNull('s.cut_at')
    .orderBy('b.started_at')
    .orderBy('b.id', 'desc')
    .select(
      { id: 'b.id', seq: 'b.seq', code: 'b.code', product: 'b.product_id' },
      db.raw("json_extract(b.summary, '$.productName') as productName"),
    );
}

/** Batches that were poured and are not gone, with the months that their bar keeps, where its wrap says. */
export async function batchesInHand(
  db: Knex,
): Promise<
  { id: string; code: string; name: string; left: number; pouredAt: string; months: number | null }[]
> {
  return db.raw(
    `select b.id, b.code, p.name, json_extract(b.summary, '$.bars.left') as left,
            json_extract(b.summary, '$.pouredAt') as pouredAt,
            json_extract(w.body, '$.durability.months') as months
     from batch_standings as s join batches as b on b.id = s.batch_id join products as p on p.id = b.product_id
       left join wraps as w on w.product_id = b.product_id
     where s.here = 1`,
  );
}

/** An event with its place in its batch. */
export interface StoredEvent {
  seq: number;
  event: BatchEvent;
}

/** The events of a batch in order, from a place on. */
export async function eventsOf(db: Knex, batch: string, after = 0): Promise<StoredEvent[]> {
  const rows: { seq: number; body: string }[] = await db('batch_events')
    .where('batch_id', batch)
    .where('seq', '>', after)
    .orderBy('seq')
    .select('seq', 'body');
  return rows.map(({ seq, body }) => ({ seq, event: JSON.parse(body) as BatchEvent }));
}

/** Events that were read before, by database and batch; batches only grow, so their last event tells whether they hold. */
const read = new WeakMap<Knex, Map<string, { last: string; events: readonly BatchEvent[] }>>();
/** Batches remembered; the frozen start of one takes some hundred kilobytes. */
const MOST_READ = 200;

/** All events of a batch, read anew only where it has grown or is another one. They are shared: nobody changes them. */
export async function allEvents(db: Knex, batch: string): Promise<readonly BatchEvent[]> {
  const row: { id: string } | undefined = await db('batch_events')
    .where('batch_id', batch)
    .orderBy('seq', 'desc')
    .first('id');
  const last = row?.id ?? '';
  const known = read.get(db) ?? new Map<string, { last: string; events: readonly BatchEvent[] }>();
  read.set(db, known);
  const found = known.get(batch);
  known.delete(batch);
  const events =
    found?.last === last
      ? found.events
      : Object.freeze((await eventsOf(db, batch)).map(({ event }) => event));
  if (events.at(-1)?.id === last) known.set(batch, { last, events });
  if (known.size > MOST_READ) known.delete(known.keys().next().value!);
  return events;
}

/** What was noted in batches, by batch, in order. */
export async function notesIn(
  db: Knex,
  batches: readonly string[],
): Promise<ReadonlyMap<string, EventOf<'noted'>[]>> {
  const rows: { batch_id: string; body: string }[] = await db('batch_events')
    .whereIn('batch_id', batches)
    .whereRaw("json_extract(body, '$.type') = 'noted'")
    .orderBy(['batch_id', 'seq'])
    .select('batch_id', 'body');
  const found = groupBy(rows, ({ batch_id }) => batch_id);
  return new Map(
    [...found].map(([id, notes]) => [id, notes.map(({ body }) => JSON.parse(body) as EventOf<'noted'>)]),
  );
}

/** Events taken at once; SQLite takes so many values in one statement and more. */
const AT_ONCE = 500;
const ADDED_AT_ONCE = 100;

/** Adds events at their places of a batch. */
export async function addEvents(
  trx: Knex,
  batch: string,
  events: readonly StoredEvent[],
  receivedAt: string,
): Promise<void> {
  const rows = events.map(({ seq, event }) => ({
    id: event.id,
    batch_id: batch,
    seq,
    body: JSON.stringify(event),
    received_at: receivedAt,
  }));
  for (let at = 0; at < rows.length; at += ADDED_AT_ONCE)
    await trx('batch_events').insert(rows.slice(at, at + ADDED_AT_ONCE));
}

/** Adds an event at a place of its batch. */
export function addEvent(trx: Knex, batch: string, event: StoredEvent, receivedAt: string): Promise<void> {
  return addEvents(trx, batch, [event], receivedAt);
}

/** The batches that events of these ids belong to. */
export async function eventBatches(db: Knex, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const found = new Map<string, string>();
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const rows: { id: string; batch_id: string }[] = await db('batch_events')
      .whereIn('id', ids.slice(at, at + AT_ONCE))
      .select('id', 'batch_id');
    for (const { id, batch_id } of rows) found.set(id, batch_id);
  }
  return found;
}

/** Which of some events are on file as bars that went. */
export async function soldBefore(db: Knex, ids: readonly string[]): Promise<ReadonlySet<string>> {
  const found = new Set<string>();
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const rows: { id: string }[] = await db('batch_events')
      .whereIn('id', ids.slice(at, at + AT_ONCE))
      .whereRaw("json_extract(body, '$.type') = 'moved'")
      .select('id');
    for (const { id } of rows) found.add(id);
  }
  return found;
}

/** The batches that drew from a lot. */
export async function batchesDrawing(db: Knex, lot: string): Promise<string[]> {
  const rows: { batch_id: string }[] = await db('stock_movements')
    .where('lot_id', lot)
    .whereNotNull('batch_id')
    .distinct('batch_id');
  return rows.map(({ batch_id }) => batch_id);
}
