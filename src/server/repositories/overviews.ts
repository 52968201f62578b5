/** Verdicts kept beside the bars, and what they are made from. */
import { folded } from '../../core/folded';
import type { Knex } from 'knex';
import type { Formula } from '../../core/formula/types';
import type { Overview } from '../../core/overview';
import type { Product } from '../../core/records/product';
import type { IssuedLabel, Wrap } from '../../core/records/wrap';

/** Bars joined with their working version, wrap and kept overview. */
function joined(db: Knex) {
  return db('products as p')
    .join('formula_versions as v', 'v.product_id', 'p.id')
    .whereRaw('v.number = (select max(number) from formula_versions where product_id = p.id)')
    .leftJoin('wraps as w', 'w.product_id', 'p.id')
    .leftJoin('overviews as o', 'o.product_id', 'p.id');
}

/** Names the state of everything of the bar's own that an overview is made from. */
const OWN_STAMP =
  "coalesce((select max(rowid) from issued_labels where product_id = p.id), 0) || '.' || p.revision || '.' || v.number || '.' || v.revision || '.' || coalesce(w.revision, 0)";

export interface KeptRow {
  id: string;
  product: Pick<Product, 'name' | 'note' | 'collection'>;
  putAwayOn: string | null;
  own: string;
  /** Of the kept overview; null where there is none. */
  stamp: string | null;
  overview: Overview | null;
}

export interface RowQuery {
  find: string;
  putAway: boolean;
  /** From 1; one past the end gives the last. */
  page: number;
  size: number;
}

/** Rows of the range in the maker's order, a page of them, and how many there are. Two statements. */
export async function rangeRows(
  db: Knex,
  { find, putAway, page, size }: RowQuery,
): Promise<{ rows: KeptRow[]; count: number; page: number }> {
  const matching = <Q extends Knex.QueryBuilder>(query: Q): Q => {
    if (putAway) query.whereNotNull('p.put_away_on');
    else query.whereNull('p.put_away_on');
    if (find) query.whereRaw('instr(folded(p.name), ?) > 0', folded(find));
    return query;
  };
  const [{ count }] = (await matching(db('products as p').count({ count: '*' }))) as [{ count: number }];
  const shown = Math.min(Math.max(1, page), Math.max(1, Math.ceil(count / size)));
  const rows = await kept(db, matching(joined(db)))
    .orderBy('p.position')
    .limit(size)
    .offset((shown - 1) * size);
  return { count, page: shown, rows: rows.map(keptRow) };
}

interface JoinedRow {
  id: string;
  put_away_on: string | null;
  product: string;
  own: string;
  stamp: string | null;
  overview: string | null;
}

function kept(db: Knex, query: Knex.QueryBuilder): Knex.QueryBuilder<object, JoinedRow[]> {
  const columns = { product: 'p.body', stamp: 'o.stamp', overview: 'o.body' };
  return query.select('p.id', 'p.put_away_on', columns, db.raw(`${OWN_STAMP} as own`)) as Knex.QueryBuilder<
    object,
    JoinedRow[]
  >;
}

function keptRow({ id, put_away_on, product, own, stamp, overview }: JoinedRow): KeptRow {
  return {
    id,
    putAwayOn: put_away_on,
    product: JSON.parse(product) as Product,
    own,
    stamp,
    overview: overview === null ? null : (JSON.parse(overview) as Overview),
  };
}

/** Every bar in the maker's order, those put away last; some of them from a place on. */
export async function everyKeptRow(db: Knex, from: number, size: number): Promise<KeptRow[]> {
  const rows = await kept(db, joined(db))
    .orderByRaw('p.put_away_on is not null, p.position')
    .limit(size)
    .offset(from);
  return rows.map(keptRow);
}

/** How many bars there are, with those put away. */
export async function barCount(db: Knex): Promise<number> {
  const [{ count }] = (await db('products').count({ count: '*' })) as [{ count: number }];
  return count;
}

export interface BarsAbout {
  ready: number;
  curing: number;
  sold: number;
}

/**
 * Bars that can be sold (as `readyBars` has it), that are here and not released yet, and that were sold: by product, of
 * every batch that was poured and not given up. What is in quarantine is neither.
 */
export async function barsAbout(db: Knex): Promise<ReadonlyMap<string, BarsAbout>> {
  const rows: (BarsAbout & { id: string })[] = await db.raw(
    `select all_sold.id, coalesce(here.free - here.ready, 0) as curing, coalesce(here.ready, 0) as ready, sold
     from (select product_id as id, sum(sold) as sold from batch_standings group by product_id) as all_sold
     left join (
       select s.product_id as id, sum(s.ready) as ready,
              sum(iif(json_extract(b.summary, '$.isQuarantined'), 0, json_extract(b.summary, '$.bars.left'))) as free
       from batch_standings s join batches b on b.id = s.batch_id where s.here = 1 group by s.product_id
     ) as here on here.id = all_sold.id`,
  );
  return new Map(rows.map(({ id, ...bars }) => [id, bars]));
}

/** The stamps of every bar: what its overview was made from, and what it would be made from now. */
export async function overviewStamps(db: Knex): Promise<{ id: string; own: string; stamp: string | null }[]> {
  return joined(db).select('p.id', { stamp: 'o.stamp' }, db.raw(`${OWN_STAMP} as own`));
}

export interface BarForOverview {
  product: Product;
  formula: Formula;
  wrap: Wrap | null;
  /** The last label issued in each market. */
  issued: Pick<IssuedLabel, 'market' | 'school' | 'content'>[];
  own: string;
}

/** The last label issued in each market, by bar. */
async function lastIssued(db: Knex, ids: readonly string[]): Promise<Map<string, BarForOverview['issued']>> {
  const rows: { product_id: string; body: string }[] = await db('issued_labels')
    .whereIn(
      'rowid',
      db('issued_labels').whereIn('product_id', ids).max('rowid').groupBy('product_id', 'market'),
    )
    .select('product_id', 'body');
  const found = new Map<string, BarForOverview['issued']>();
  for (const { product_id, body } of rows)
    found.set(product_id, [...(found.get(product_id) ?? []), JSON.parse(body) as IssuedLabel]);
  return found;
}

/** What the overviews of some bars are made from. */
export async function barsForOverview(db: Knex, ids: readonly string[]): Promise<BarForOverview[]> {
  const rows: { id: string; product: string; formula: string; wrap: string | null; own: string }[] =
    await joined(db)
      .whereIn('p.id', ids)
      .select(
        'p.id',
        { product: 'p.body', formula: 'v.formula', wrap: 'w.body' },
        db.raw(`${OWN_STAMP} as own`),
      );
  const issued = await lastIssued(db, ids);
  return rows.map(({ id, product, formula, wrap, own }) => ({
    issued: issued.get(id) ?? [],
    product: JSON.parse(product) as Product,
    formula: JSON.parse(formula) as Formula,
    wrap: wrap === null ? null : (JSON.parse(wrap) as Wrap),
    own,
  }));
}

/** Keeps overviews; those of bars that are gone meanwhile are passed over. */
export async function putOverviews(
  trx: Knex,
  rows: readonly { id: string; stamp: string; overview: Overview }[],
): Promise<void> {
  for (const { id, stamp, overview } of rows) {
    await trx.raw(
      `insert into overviews (product_id, stamp, body) select id, ?, ? from products where id = ?
       on conflict (product_id) do update set stamp = excluded.stamp, body = excluded.body`,
      [stamp, JSON.stringify(overview), id],
    );
  }
}
