/** Verdicts kept beside the bars, and what they are made from. */
import type { Knex } from 'knex';
import type { Formula } from '../../core/formula/types';
import type { Overview } from '../../core/overview';
import type { Product } from '../../core/records/product';
import type { Wrap } from '../../core/records/wrap';

/** Bars joined with their working version, wrap and kept overview. */
function joined(db: Knex) {
  return db('products as p')
    .join('formula_versions as v', 'v.product_id', 'p.id')
    .whereRaw('v.number = (select max(number) from formula_versions where product_id = p.id)')
    .leftJoin('wraps as w', 'w.product_id', 'p.id')
    .leftJoin('overviews as o', 'o.product_id', 'p.id');
}

/** Names the state of everything of the bar's own that an overview is made from. */
const OWN_STAMP = "p.revision || '.' || v.number || '.' || v.revision || '.' || coalesce(w.revision, 0)";

export interface RangeRow {
  id: string;
  product: Pick<Product, 'name' | 'note'>;
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
): Promise<{ rows: RangeRow[]; count: number; page: number }> {
  const matching = <Q extends Knex.QueryBuilder>(query: Q): Q => {
    if (putAway) query.whereNotNull('p.put_away_on');
    else query.whereNull('p.put_away_on');
    if (find) query.whereRaw('instr(lower(p.name), ?) > 0', find.toLowerCase());
    return query;
  };
  const [{ count }] = (await matching(db('products as p').count({ count: '*' }))) as [{ count: number }];
  const shown = Math.min(Math.max(1, page), Math.max(1, Math.ceil(count / size)));
  const rows: { id: string; product: string; own: string; stamp: string | null; overview: string | null }[] =
    await matching(joined(db))
      .select(
        'p.id',
        { product: 'p.body', stamp: 'o.stamp', overview: 'o.body' },
        db.raw(`${OWN_STAMP} as own`),
      )
      .orderBy('p.position')
      .limit(size)
      .offset((shown - 1) * size);
  return {
    count,
    page: shown,
    rows: rows.map(({ id, product, own, stamp, overview }) => ({
      id,
      product: JSON.parse(product) as Product,
      own,
      stamp,
      overview: overview === null ? null : (JSON.parse(overview) as Overview),
    })),
  };
}

/** The stamps of every bar: what its overview was made from, and what it would be made from now. */
export async function overviewStamps(db: Knex): Promise<{ id: string; own: string; stamp: string | null }[]> {
  return joined(db).select('p.id', { stamp: 'o.stamp' }, db.raw(`${OWN_STAMP} as own`));
}

export interface BarForOverview {
  product: Product;
  formula: Formula;
  wrap: Wrap | null;
  own: string;
}

/** What the overviews of some bars are made from. */
export async function barsForOverview(db: Knex, ids: readonly string[]): Promise<BarForOverview[]> {
  const rows: { product: string; formula: string; wrap: string | null; own: string }[] = await joined(db)
    .whereIn('p.id', ids)
    .select({ product: 'p.body', formula: 'v.formula', wrap: 'w.body' }, db.raw(`${OWN_STAMP} as own`));
  return rows.map(({ product, formula, wrap, own }) => ({
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
