/** Products and the versions of their formulas. */
import type { Knex } from 'knex';
import type { Formula, Market } from '../../core/formula/types';

/** A product as the range lists it and the label names it. */
export interface Product {
  id: string;
  name: string;
  /** What it is, in plain words, for the label. */
  identity: string;
  /** One line for the maker. */
  note: string;
  markets: Market[];
  /** Net weight on the label, grams; null until the maker states it. */
  netMassG: number | null;
  /** Code of the batch a label is made for. */
  batchCode: string;
  firstPlacedOn: Partial<Record<Market, string>>;
}

export interface WorkingVersion {
  number: number;
  name: string | null;
  /** Counts every save; a save must name the revision it was made from. */
  revision: number;
  savedAt: string;
  formula: Formula;
}

export interface ProductWithFormula {
  product: Product;
  version: WorkingVersion;
}

interface VersionRow {
  product_id: string;
  number: number;
  name: string | null;
  revision: number;
  saved_at: string;
  formula: string;
}

function versionFromRow(row: VersionRow): WorkingVersion {
  const formula = JSON.parse(row.formula) as Formula;
  return { number: row.number, name: row.name, revision: row.revision, savedAt: row.saved_at, formula };
}

async function workingRow(db: Knex, productId: string): Promise<VersionRow | undefined> {
  return db<VersionRow>('formula_versions').where('product_id', productId).orderBy('number', 'desc').first();
}

/** Every product with its working version, in the maker's order. */
export async function allProducts(db: Knex): Promise<ProductWithFormula[]> {
  const rows: { id: string; body: string }[] = await db('products').select('id', 'body').orderBy('position');
  const products: ProductWithFormula[] = [];
  for (const row of rows) {
    const version = await workingRow(db, row.id);
    if (version)
      products.push({ product: JSON.parse(row.body) as Product, version: versionFromRow(version) });
  }
  return products;
}

/** One product with its working version, or null. */
export async function findProduct(db: Knex, id: string): Promise<ProductWithFormula | null> {
  const row: { body: string } | undefined = await db('products').select('body').where('id', id).first();
  const version = row && (await workingRow(db, id));
  if (!row || !version) return null;
  return { product: JSON.parse(row.body) as Product, version: versionFromRow(version) };
}

/** Adds a product with the first version of its formula, in one transaction. */
export async function addProduct(
  db: Knex,
  product: Product,
  formula: Formula,
  savedAt: string,
): Promise<void> {
  await db.transaction(async (trx) => {
    const [{ count }] = (await trx('products').count({ count: '*' })) as [{ count: number }];
    const { id, name } = product;
    await trx('products').insert({ id, name, position: count, body: JSON.stringify(product) });
    await trx('formula_versions').insert({
      product_id: id,
      number: 1,
      revision: 1,
      saved_at: savedAt,
      formula: JSON.stringify(formula),
    });
  });
}

/** Replaces a product's body; its formula versions stay. */
export async function putProduct(db: Knex, product: Product): Promise<void> {
  const { id, name } = product;
  await db('products')
    .where('id', id)
    .update({ name, body: JSON.stringify(product) });
}

export type SaveOutcome =
  | { outcome: 'saved'; version: WorkingVersion }
  | { outcome: 'stale'; version: WorkingVersion }
  | { outcome: 'missing' };

/**
 * Saves a formula over the working version if that is still at the revision the change was made from; else
 * nothing is written and the newer version comes back. One transaction.
 */
export async function saveFormula(
  db: Knex,
  productId: string,
  fromRevision: number,
  formula: Formula,
  savedAt: string,
): Promise<SaveOutcome> {
  return db.transaction(async (trx) => {
    const row = await workingRow(trx, productId);
    if (!row) return { outcome: 'missing' };
    if (row.revision !== fromRevision) return { outcome: 'stale', version: versionFromRow(row) };
    const saved = { ...row, revision: row.revision + 1, saved_at: savedAt, formula: JSON.stringify(formula) };
    await trx('formula_versions')
      .where({ product_id: productId, number: row.number })
      .update({ revision: saved.revision, saved_at: savedAt, formula: saved.formula });
    return { outcome: 'saved', version: versionFromRow(saved) };
  });
}

/** Every version kept under a name, newest first; the working one is not among them. */
export async function keptVersions(db: Knex, productId: string): Promise<WorkingVersion[]> {
  const rows = await db<VersionRow>('formula_versions')
    .where('product_id', productId)
    .whereNotNull('name')
    .orderBy('number', 'desc');
  return rows.map(versionFromRow);
}

/**
 * Keeps the working version under a name and carries on in a new one that starts out the same. Stale where
 * the working version is no longer at the revision named. One transaction.
 */
export async function keepVersion(
  db: Knex,
  productId: string,
  revision: number,
  name: string,
  savedAt: string,
): Promise<SaveOutcome> {
  return db.transaction(async (trx) => {
    const row = await workingRow(trx, productId);
    if (!row) return { outcome: 'missing' };
    if (row.revision !== revision) return { outcome: 'stale', version: versionFromRow(row) };
    await trx('formula_versions').where({ product_id: productId, number: row.number }).update({ name });
    const { product_id, number, formula } = row;
    const next = {
      product_id,
      number: number + 1,
      name: null,
      revision: revision + 1,
      saved_at: savedAt,
      formula,
    };
    await trx('formula_versions').insert(next);
    return { outcome: 'saved', version: versionFromRow(next) };
  });
}
