/** Reading, assessing and saving products. */
import type { Knex } from 'knex';
import { assess, type Result } from '../../core/assess';
import {
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Material,
  type Stored,
} from '../../core/formula/types';
import type { Assessment } from '../../core/formula/answer';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { fault, HttpFault } from '../http';
import {
  allProducts,
  findProduct,
  saveFormula,
  type Product,
  type ProductWithFormula,
  type WorkingVersion,
} from '../repositories/products';
import { storedFor } from './cupboard';

/** The request that assesses a product's formula in the product's own markets on a day. */
function productRequest(product: Product, formula: Formula, onDate: string): AssessmentRequest {
  const { markets, firstPlacedOn } = product;
  return { format: REQUEST_FORMAT, formula, markets, onDate, firstPlacedOn };
}

async function requireProduct(db: Knex, id: string): Promise<ProductWithFormula> {
  const found = await findProduct(db, id);
  if (!found) throw fault(404, 'unknown-product', `There is no product "${id}".`, 'id');
  return found;
}

export interface RangeEntry {
  product: Product;
  result: Result;
}

/** Every product with its assessment of today. */
export async function rangeOverview(db: Knex): Promise<RangeEntry[]> {
  const stored = await storedFor(db);
  const products = await allProducts(db);
  return products.map(({ product, version }) => ({
    product,
    result: assess(productRequest(product, version.formula, today()), stored),
  }));
}

/** What the worktable needs to reckon by itself: the formula, its materials and the rules in force. */
export interface WorktableData {
  product: Product;
  version: WorkingVersion;
  materials: Material[];
  rules: Pick<Stored, 'limits' | 'declarables' | 'demands'>;
  rulebookEdition: string;
  onDate: string;
}

/** Gathers a product for the worktable; 404 where there is none. */
export async function worktableData(db: Knex, id: string): Promise<WorktableData> {
  const { product, version } = await requireProduct(db, id);
  const stored = await storedFor(db);
  const ids = new Set(version.formula.lines.map(({ material }) => material));
  const materials = [...ids].flatMap((materialId) => stored.material(materialId) ?? []);
  const { limits, declarables } = stored;
  const { edition } = rulebook();
  const inMarkets = <T extends { markets?: readonly string[] | null }>(entry: T) =>
    !entry.markets || entry.markets.some((market) => (product.markets as string[]).includes(market));
  const rules = {
    limits: limits.filter(inMarkets),
    declarables: declarables.filter(inMarkets),
    demands: stored.demands,
  };
  return { product, version, materials, rules, rulebookEdition: edition, onDate: today() };
}

/** Saves a formula that reckons; 422 with paths where it does not, 409 with the newer version where stale. */
export async function saveProductFormula(
  db: Knex,
  id: string,
  revision: number,
  formula: Formula,
): Promise<{ version: WorkingVersion } | { stale: WorkingVersion }> {
  const { product } = await requireProduct(db, id);
  const result = assess(productRequest(product, formula, today()), await storedFor(db));
  if (!result.ok) throw new HttpFault(422, result.errors);
  const saved = await saveFormula(db, id, revision, formula, new Date().toISOString());
  if (saved.outcome === 'missing') throw fault(404, 'unknown-product', `There is no product "${id}".`, 'id');
  return saved.outcome === 'stale' ? { stale: saved.version } : { version: saved.version };
}

/** A product with its saved formula's assessment for one market; 404 and 422 as faults. */
export async function assessProduct(
  db: Knex,
  id: string,
  market: Product['markets'][number],
): Promise<{ product: Product; assessment: Assessment }> {
  const { product, version } = await requireProduct(db, id);
  const request = { ...productRequest(product, version.formula, today()), markets: [market] };
  const result = assess(request, await storedFor(db));
  if (!result.ok) throw new HttpFault(422, result.errors);
  return { product, assessment: result.assessment };
}
