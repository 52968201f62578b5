/** Products, the versions of their formulas, and which materials they hold. */
import { groupBy } from '../../core/group';
import type { Knex } from 'knex';
import type { Formula, Market } from '../../core/formula/types';
import type { Comparable, Product, ProductWithFormula, WorkingVersion } from '../../core/records/product';

interface ProductRow {
  id: string;
  body: string;
  revision: number;
  put_away_on: string | null;
}

interface VersionRow {
  product_id: string;
  number: number;
  name: string | null;
  revision: number;
  saved_at: string;
  formula: string;
}

type ProductBody = Omit<Product, 'revision' | 'putAwayOn'>;

function productFromRow({ body, revision, put_away_on }: ProductRow): Product {
  return { ...(JSON.parse(body) as ProductBody), revision, putAwayOn: put_away_on };
}

function versionFromRow(row: VersionRow): WorkingVersion {
  const formula = JSON.parse(row.formula) as Formula;
  return { number: row.number, name: row.name, revision: row.revision, savedAt: row.saved_at, formula };
}

const bodyOf = ({ revision: _, putAwayOn: __, ...body }: Product): string => JSON.stringify(body);

/** Products joined with the newest of their versions, which is the working one. */
function withWorking(db: Knex) {
  return db('products as p')
    .join('formula_versions as v', 'v.product_id', 'p.id')
    .whereRaw('v.number = (select max(number) from formula_versions where product_id = p.id)');
}

const JOINED = [
  ...['p.id', 'p.body', 'p.put_away_on', 'p.revision as details_revision'],
  ...['v.product_id', 'v.number', 'v.name', 'v.revision', 'v.saved_at', 'v.formula'],
];

type JoinedRow = Omit<ProductRow, 'revision'> & VersionRow & { details_revision: number };

function fromJoined(row: JoinedRow): ProductWithFormula {
  return {
    product: productFromRow({ ...row, revision: row.details_revision }),
    version: versionFromRow(row),
  };
}

/** One product with its working version, or null. */
export async function findProduct(db: Knex, id: string): Promise<ProductWithFormula | null> {
  const row: JoinedRow | undefined = await withWorking(db).where('p.id', id).first(JOINED);
  return row ? fromJoined(row) : null;
}

/** Every product's id and name, in the maker's order; those put away come last. */
export async function productNames(db: Knex): Promise<{ id: string; name: string }[]> {
  return db('products').select('id', 'name').orderByRaw('put_away_on is not null, position');
}

async function noteUses(trx: Knex, productId: string, formula: Formula): Promise<void> {
  const ids = [...new Set(formula.lines.map(({ material }) => material))];
  await trx('product_materials').where('product_id', productId).delete();
  const rows = ids.map((material_id) => ({ product_id: productId, material_id }));
  if (rows.length > 0) await trx('product_materials').insert(rows);
}

/** Adds a product with the first version of its formula. */
export async function addProduct(
  trx: Knex,
  product: Product,
  formula: Formula,
  savedAt: string,
): Promise<void> {
  const [{ last }] = (await trx('products').max({ last: 'position' })) as [{ last: number | null }];
  const { id, name, revision } = product;
  await trx('products').insert({ id, name, revision, position: (last ?? -1) + 1, body: bodyOf(product) });
  await trx('formula_versions').insert({
    product_id: id,
    number: 1,
    revision: 1,
    saved_at: savedAt,
    formula: JSON.stringify(formula),
  });
  await noteUses(trx, id, formula);
}

/** Changes a product's details to those given, its revision and whether it is put away among them. */
export async function putProduct(trx: Knex, product: Product): Promise<void> {
  const { id, name, revision, putAwayOn } = product;
  await trx('products')
    .where('id', id)
    .update({ name, revision, put_away_on: putAwayOn, body: bodyOf(product) });
}

/** Removes a product with its versions and wrap; issued labels stay. */
export async function removeProduct(trx: Knex, id: string): Promise<void> {
  await trx('products').where('id', id).delete();
}

/** Saves a formula over the working version. */
export async function putFormula(
  trx: Knex,
  productId: string,
  version: WorkingVersion,
): Promise<WorkingVersion> {
  const { number, revision, savedAt, formula } = version;
  await trx('formula_versions')
    .where({ product_id: productId, number })
    .update({ revision, saved_at: savedAt, formula: JSON.stringify(formula) });
  await noteUses(trx, productId, formula);
  return version;
}

/** Every version kept under a name, newest first; the working one is not among them. */
export async function keptVersions(db: Knex, productId: string): Promise<WorkingVersion[]> {
  const rows = await db<VersionRow>('formula_versions')
    .where('product_id', productId)
    .whereNotNull('name')
    .orderBy('number', 'desc');
  return rows.map(versionFromRow);
}

/** Keeps the working version under a name and carries on in a new one that starts out the same. */
export async function nameVersion(
  trx: Knex,
  productId: string,
  version: WorkingVersion,
  name: string,
  savedAt: string,
): Promise<WorkingVersion> {
  const { number, revision, formula } = version;
  await trx('formula_versions').where({ product_id: productId, number }).update({ name });
  const next: WorkingVersion = { number: number + 1, name: null, revision: revision + 1, savedAt, formula };
  await trx('formula_versions').insert({
    product_id: productId,
    number: next.number,
    name: null,
    revision: next.revision,
    saved_at: savedAt,
    formula: JSON.stringify(formula),
  });
  return next;
}

/** Every bar with the versions kept of it. Two statements. */
export async function comparableBars(db: Knex): Promise<Comparable[]> {
  const kept: { product_id: string; number: number; name: string }[] = await db('formula_versions')
    .select('product_id', 'number', 'name')
    .whereNotNull('name')
    .orderBy('number', 'desc');
  const byProduct = new Map<string, Comparable['versions']>();
  for (const { product_id, number, name } of kept) {
    const known = byProduct.get(product_id);
    if (known) known.push({ number, name });
    else byProduct.set(product_id, [{ number, name }]);
  }
  return (await productNames(db)).map(({ id, name }) => ({ id, name, versions: byProduct.get(id) ?? [] }));
}

/** How many bars hold each material on a line of its own. One statement. */
export async function holdingCounts(db: Knex): Promise<ReadonlyMap<string, number>> {
  const rows: { material_id: string; count: number }[] = await db('product_materials')
    .select('material_id')
    .count({ count: '*' })
    .groupBy('material_id');
  return new Map(rows.map(({ material_id, count }) => [material_id, count]));
}

/**
 * How many bars hold each material itself or one of the mixes that hold it. One statement, whatever the number of
 * materials.
 */
export async function holdingThroughCounts(
  db: Knex,
  holders: ReadonlyMap<string, readonly string[]>,
): Promise<ReadonlyMap<string, number>> {
  const pairs = [...holders].flatMap(([part, through]) => [part, ...through].map((holder) => [part, holder]));
  if (pairs.length === 0) return new Map();
  const rows = await db.raw<{ part: string; count: number }[]>(
    `select json_extract(j.value, '$[0]') as part, count(distinct u.product_id) as count
     from json_each(?) as j join product_materials as u on u.material_id = json_extract(j.value, '$[1]')
     group by part`,
    [JSON.stringify(pairs)],
  );
  return new Map(rows.map(({ part, count }) => [part, count]));
}

/** The bars that hold any of some materials, by name: how many, and the first of them. */
export async function barsHolding(
  db: Knex,
  materials: readonly string[],
  most: number,
): Promise<{ product: string; name: string; material: string }[]> {
  return db('product_materials as u')
    .join('products as p', 'p.id', 'u.product_id')
    .whereIn('u.material_id', materials)
    .orderBy('p.name')
    .limit(most)
    .select({ product: 'p.id', name: 'p.name', material: 'u.material_id' });
}

/** How many bars hold any of some materials. */
export async function countHolding(db: Knex, materials: readonly string[]): Promise<number> {
  const [{ count }] = (await db('product_materials')
    .whereIn('material_id', materials)
    .countDistinct({ count: 'product_id' })) as [{ count: number }];
  return count;
}

/** Ids of the bars that hold a material. */
export async function holdersOf(db: Knex, material: string): Promise<string[]> {
  return (await db('product_materials').where('material_id', material).pluck('product_id')) as string[];
}

/** Bars that are made, in the order of the range, with where they are sold and what they hold. */
export async function barsMade(
  db: Knex,
): Promise<{ id: string; name: string; markets: Market[]; materials: string[] }[]> {
  const rows: { id: string; name: string; markets: string }[] = await db.raw(
    "select id, name, json_extract(body, '$.markets') as markets from products where put_away_on is null order by position",
  );
  const uses: { product_id: string; material_id: string }[] = await db('product_materials').select();
  const byProduct = groupBy(uses, ({ product_id }) => product_id);
  return rows.map(({ id, name, markets }) => ({
    id,
    name,
    markets: JSON.parse(markets) as Market[],
    materials: (byProduct.get(id) ?? []).map(({ material_id }) => material_id),
  }));
}

/** The bar that shares the largest part of its materials with one; null where none shares any. */
export async function nearestRelative(db: Knex, productId: string): Promise<string | null> {
  const rows = await db.raw<{ id: string }[]>(
    `select other.product_id as id, count(*) as shared,
            (select count(*) from product_materials where product_id = other.product_id) as held
     from product_materials as own join product_materials as other using (material_id)
     where own.product_id = ? and other.product_id <> own.product_id
     group by other.product_id order by 1.0 * shared / held desc, shared desc, other.product_id limit 1`,
    [productId],
  );
  return rows[0]?.id ?? null;
}
