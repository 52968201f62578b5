/** How every batch stands, in rows kept beside its events in the same transaction. */
import type { Knex } from 'knex';
import type { BatchStanding } from '../../core/batch/types';
import type { PastCut } from '../../core/curing/window';
import { comingBars, readyBars, soldBars } from '../../core/stock/supply';
import type { SoldOn } from '../../core/stock/pace';

/** States of a batch that stands on the rack or has bars to sell. */
const HERE: ReadonlySet<BatchStanding['state']> = new Set(['poured', 'cut', 'curing', 'released']);

/** A batch that is here: on the rack, or released with bars left. */
const isHere = ({ state, bars }: BatchStanding) => HERE.has(state) && (state !== 'released' || bars.left > 0);

/** Counts every change of what is kept; rows of an older shape are made anew. */
const SHAPE = 4;

/** Names the events that a row was made of. */
const madeOf = (seq: number) => `${SHAPE} ${seq}`;

export interface KeptStanding {
  batch: string;
  seq: number;
  standing: BatchStanding;
  /** Moulds of a pour of which a temperature is on file since; empty where none is. */
  warmIn: readonly string[];
}

interface StandingRow {
  batch_id: string;
  made_of: string;
  product_id: string;
  here: number;
  ready: number;
  coming: number;
  sold: number;
  released_at: string | null;
  cut_at: string | null;
  body: string;
}

/** Moments by which rows are ordered and compared, all written alike. */
const utc = (at: string) => new Date(at).toISOString();

function toRow({ batch, seq, standing }: KeptStanding): StandingRow {
  const released = standing.released.map(({ at }) => utc(at)).sort();
  return {
    batch_id: batch,
    made_of: madeOf(seq),
    product_id: standing.product,
    here: isHere(standing) ? 1 : 0,
    ready: readyBars(standing),
    coming: comingBars(standing),
    sold: soldBars(standing),
    released_at: released[0] ?? null,
    cut_at: standing.cut ? utc(standing.cut.at) : null,
    body: JSON.stringify(standing),
  };
}

/** Keeps how a batch stands in the place of what was kept of it. */
export async function putStanding(trx: Knex, kept: KeptStanding): Promise<void> {
  const { batch, standing, warmIn } = kept;
  await trx('batch_standings').insert(toRow(kept)).onConflict('batch_id').merge();
  await trx('batch_sales').where('batch_id', batch).delete();
  await trx('batch_warmth').where('batch_id', batch).delete();
  const sales = standing.moved.filter(({ how }) => how === 'sale');
  const row = { batch_id: batch, product_id: standing.product };
  for (const { at, bars } of sales) await trx('batch_sales').insert({ ...row, at: utc(at), bars });
  for (const mould of warmIn)
    await trx('batch_warmth').insert({
      batch_id: batch,
      mould_id: mould,
      poured_at: utc(standing.poured!.at),
    });
}

/** Forgets all that is kept beside events. */
export async function dropStandings(trx: Knex): Promise<void> {
  for (const table of ['batch_warmth', 'batch_sales', 'batch_standings']) await trx(table).delete();
}

/** Everything that is kept of a batch as one text, to be compared. */
export async function keptText(db: Knex, batch: string): Promise<string> {
  const of = (table: string, by: string): Promise<object[]> => db(table).where('batch_id', batch).orderBy(by);
  return JSON.stringify([
    await of('batch_standings', 'batch_id'),
    await of('batch_sales', 'rowid'),
    await of('batch_warmth', 'mould_id'),
  ]);
}

/** Ids of batches of which nothing is kept, or something of other events or an older shape. */
export async function batchesUnkept(db: Knex): Promise<string[]> {
  const rows: { id: string }[] = await db('batches as b')
    .leftJoin('batch_standings as s', 's.batch_id', 'b.id')
    .whereRaw('s.made_of is not ? || b.seq', `${SHAPE} `)
    .orderBy('b.rowid')
    .select('b.id');
  return rows.map(({ id }) => id);
}

const standingsFrom = (rows: readonly Pick<StandingRow, 'batch_id' | 'body'>[]) =>
  new Map(rows.map(({ batch_id, body }) => [batch_id, JSON.parse(body) as BatchStanding]));

/** How some batches stand. */
export async function standingsOf(
  db: Knex,
  batches: readonly string[],
): Promise<ReadonlyMap<string, BatchStanding>> {
  return standingsFrom(await db('batch_standings').whereIn('batch_id', batches).select('batch_id', 'body'));
}

/** Ids of the batches that are on the rack or have released bars left. */
export async function batchesHere(db: Knex): Promise<ReadonlySet<string>> {
  const rows: { batch_id: string }[] = await db('batch_standings').where('here', 1).select('batch_id');
  return new Set(rows.map(({ batch_id }) => batch_id));
}

/** The last batches that were released, newest first: ids, codes and the event each stands at. */
export async function lastReleased(
  db: Knex,
  most: number,
): Promise<{ id: string; code: string; seq: number }[]> {
  return db('batch_standings as s')
    .join('batches as b', 'b.id', 's.batch_id')
    .whereNotNull('s.released_at')
    .orderBy('s.released_at', 'desc')
    .limit(most)
    .select('b.id', 'b.code', 'b.seq');
}

/** The last batches of a bar that were cut, newest first, besides one. */
export async function cutBefore(db: Knex, product: string, but: string, most: number): Promise<PastCut[]> {
  const rows: { cut: string }[] = await db('batch_standings')
    .where('product_id', product)
    .whereNotNull('cut_at')
    .whereNot('batch_id', but)
    .orderBy('cut_at', 'desc')
    .limit(most)
    .select(
      db.raw(
        "json_object('poured', body -> '$.poured', 'cut', body -> '$.cut', 'checks', body -> '$.checks') as cut",
      ),
    );
  return rows.map(({ cut }) => JSON.parse(cut) as PastCut);
}

/** Ids of the last batches that went into a mould and of which a temperature is on file since, newest first. */
export async function warmIn(db: Knex, mould: string, most: number): Promise<string[]> {
  const rows: { batch_id: string }[] = await db('batch_warmth')
    .where('mould_id', mould)
    .orderBy('poured_at', 'desc')
    .limit(most)
    .select('batch_id');
  return rows.map(({ batch_id }) => batch_id);
}

/** Of every bar that was ever released: the moment it first was, and the bars that are ready now. */
export async function releasedBars(
  db: Knex,
): Promise<ReadonlyMap<string, { firstAt: string; ready: number }>> {
  const rows: { id: string; firstAt: string; ready: number }[] = await db('batch_standings')
    .whereNotNull('released_at')
    .groupBy('product_id')
    .select('product_id as id')
    .min({ firstAt: 'released_at' })
    .sum({ ready: 'ready' });
  return new Map(rows.map(({ id, firstAt, ready }) => [id, { firstAt, ready }]));
}

/** Batches with bars that are on their way, by bar, oldest first. */
export async function comingOf(
  db: Knex,
): Promise<{ product: string; batch: string; code: string; bars: number; madeAt: string }[]> {
  return db('batch_standings as s')
    .join('batches as b', 'b.id', 's.batch_id')
    .where('s.here', 1)
    .where('s.coming', '>', 0)
    .orderBy('b.started_at', 'desc')
    .orderBy('b.id')
    .select(
      { product: 's.product_id', batch: 's.batch_id', code: 'b.code', bars: 's.coming' },
      db.raw("coalesce(json_extract(s.body, '$.poured.at'), b.started_at) as madeAt"),
    );
}

/** What was sold since a moment, by bar, each with its moment. */
export async function soldSince(
  db: Knex,
  since: string,
): Promise<ReadonlyMap<string, (Omit<SoldOn, 'day'> & { at: string })[]>> {
  const rows: { id: string; sold: string }[] = await db('batch_sales')
    .where('at', '>=', since)
    .groupBy('product_id')
    .select('product_id as id', db.raw("json_group_array(json_object('at', at, 'bars', bars)) as sold"));
  return new Map(rows.map(({ id, sold }) => [id, JSON.parse(sold) as { at: string; bars: number }[]]));
}
