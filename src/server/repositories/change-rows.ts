/** What a change may touch, as rows: bars, kept versions, batches, issued labels, and the formulas of each. */
import type { Knex } from 'knex';
import type { Subject } from '../../core/change/types';
import type { Market } from '../../core/formula/types';
import type { Product } from '../../core/records/product';
import type { IssuedLabel } from '../../core/records/wrap';

/** A batch that was poured and not given up, without its formula. */
export interface BatchRow {
  id: string;
  code: string;
  product_id: string;
  name: string;
  state: string;
  left: number;
  sold: number;
  buyers: string[];
  released: NonNullable<Subject['placedOn']>;
  version: number | null;
}

/** Of what was weighed all but the formula, read in one go: what is weighed may be long. */
type Facts = [number | null, string[] | null, Subject['placedOn'] | null, number | null];

/** Ids of every batch that was poured and not given up, in the order they were begun. */
export async function pouredIds(db: Knex): Promise<string[]> {
  return (await db('batches')
    .whereNotNull('weighed')
    .whereNotIn('state', ['stopped', 'discarded'])
    .orderBy(['started_at', 'id'])
    .pluck('id')) as string[];
}

/** Batches by their ids, in that order. */
export async function batchRowsOf(db: Knex, ids: readonly string[]): Promise<BatchRow[]> {
  const rows = await db.raw<(BatchRow & { facts: string })[]>(
    `select b.id, b.code, b.product_id, p.name, b.state, json_extract(b.summary, '$.bars.left') as left,
            json_extract(b.weighed, '$.sold', '$.buyers', '$.releasedOn', '$.version') as facts
     from json_each(?) as wanted join batches as b on b.id = wanted.value join products as p on p.id = b.product_id
     order by wanted.key`,
    [JSON.stringify(ids)],
  );
  return rows.map(({ facts, ...row }) => {
    const [sold, buyers, released, version] = JSON.parse(facts) as Facts;
    return { ...row, sold: sold ?? 0, buyers: buyers ?? [], released: released ?? {}, version };
  });
}

export interface BarRow {
  id: string;
  product: Product;
  /** Put away, it is not made any more; what was poured and printed of it is still out there. */
  isAway: boolean;
}

/** Every bar, in the order of the range. */
export async function barRows(db: Knex): Promise<BarRow[]> {
  const rows: { id: string; body: string; put_away_on: string | null }[] = await db('products')
    .select('id', 'body', 'put_away_on')
    .orderBy('position');
  return rows.map(({ id, body, put_away_on }) => ({
    id,
    product: JSON.parse(body) as Product,
    isAway: put_away_on !== null,
  }));
}

/** Versions that were kept under a name, by bar and number. */
export async function namedVersionRows(
  db: Knex,
): Promise<{ id: number; product_id: string; number: number; name: string }[]> {
  return db('formula_versions')
    .whereNotNull('name')
    .orderBy(['product_id', 'number'])
    .select('id', 'product_id', 'number', 'name');
}

export interface IssuedRow {
  id: string;
  product_id: string;
  market: Market;
  issued_on: string;
  school: IssuedLabel['school'];
  code: string;
}

/** Issued labels without what stands on them, in the order they were issued. */
export async function issuedRows(db: Knex): Promise<IssuedRow[]> {
  return db.raw(
    `select id, product_id, market, issued_on, json_extract(body, '$.school') as school,
            json_extract(body, '$.batchCode') as code from issued_labels order by rowid`,
  );
}

/** Where a formula stands: the working one by its bar, a kept version by its row, a batch or an issued label by its id. */
export type FormulaPlace = 'working' | 'version' | 'batch' | 'issued';

/** The JSON texts of formulas, by where they stand. */
export async function formulaTexts(
  db: Knex,
  from: FormulaPlace,
  keys: readonly string[],
): Promise<{ key: string; formula: string }[]> {
  switch (from) {
    case 'working':
      return db('formula_versions as v')
        .whereIn('v.product_id', keys)
        .whereRaw('v.number = (select max(number) from formula_versions where product_id = v.product_id)')
        .select({ key: 'v.product_id', formula: 'v.formula' });
    case 'version':
      return db('formula_versions').whereIn('id', keys.map(Number)).select({ key: 'id', formula: 'formula' });
    case 'batch':
      return db('batches')
        .whereIn('id', keys)
        .select({ key: 'id', formula: db.raw("json_extract(weighed, '$.formula')") });
    case 'issued':
      return db('issued_labels')
        .whereIn('id', keys)
        .select({ key: 'id', formula: db.raw("json_extract(body, '$.formula')") });
  }
}
