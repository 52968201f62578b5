/** Reading, assessing and saving products. */
import type { Knex } from 'knex';
import { assess, type Result } from '../../core/assess';
import {
  FORMULA_FORMAT,
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
  addProduct,
  allProducts,
  findProduct,
  keepVersion,
  keptVersions,
  saveFormula,
  type Product,
  type ProductWithFormula,
  type SaveOutcome,
  type WorkingVersion,
} from '../repositories/products';
import { ownMaterialsOfKinds, storedFor } from './cupboard';

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
  /** The maker's own materials of the kinds in the formula. */
  alternatives: Material[];
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
  const alternatives = await ownMaterialsOfKinds(db, new Set(materials.map(({ kind }) => kind)));
  const { limits, declarables } = stored;
  const { edition } = rulebook();
  const inMarkets = <T extends { markets?: readonly string[] | null }>(entry: T) =>
    !entry.markets || entry.markets.some((market) => (product.markets as string[]).includes(market));
  const rules = {
    limits: limits.filter(inMarkets),
    declarables: declarables.filter(inMarkets),
    demands: stored.demands,
  };
  return { product, version, materials, alternatives, rules, rulebookEdition: edition, onDate: today() };
}

/** Saves a formula that reckons; 422 with paths where it does not, 409 with the newer version where stale. */
export async function saveProductFormula(
  db: Knex,
  id: string,
  revision: number,
  formula: Formula,
): Promise<Saved> {
  const { product } = await requireProduct(db, id);
  const result = assess(productRequest(product, formula, today()), await storedFor(db));
  if (!result.ok) throw new HttpFault(422, result.errors);
  return told(id, await saveFormula(db, id, revision, formula, new Date().toISOString()));
}

/** What a save comes back with: the version saved, or the newer one it would have overwritten. */
type Saved = { version: WorkingVersion } | { stale: WorkingVersion };

function told(id: string, saved: SaveOutcome): Saved {
  if (saved.outcome === 'missing') throw fault(404, 'unknown-product', `There is no product "${id}".`, 'id');
  return saved.outcome === 'stale' ? { stale: saved.version } : { version: saved.version };
}

/** The versions kept under a name, newest first. */
export async function productVersions(db: Knex, id: string): Promise<WorkingVersion[]> {
  await requireProduct(db, id);
  return keptVersions(db, id);
}

/** Keeps what is on file under a name and carries on from it. */
export async function keepProductVersion(
  db: Knex,
  id: string,
  revision: number,
  name: string,
): Promise<Saved> {
  return told(id, await keepVersion(db, id, revision, name, new Date().toISOString()));
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

/** What a new bar starts from: plain, balanced, and all of it to be changed. */
function starterFormula(name: string): Formula {
  const line = (id: string, material: string, value: number) => ({
    id,
    material,
    stage: 'fats' as const,
    amount: { value, unit: '%fats' as const },
    measuredBy: 'scale' as const,
  });
  return {
    format: FORMULA_FORMAT,
    name,
    process: 'cold',
    fatsMassG: 1000,
    alkali: { superfatPct: 6, purityPct: 99 },
    liquid: { basis: 'ofFats', value: 33 },
    cure: { residualWaterPct: 8 },
    marginPct: 10,
    scentNaming: 'parfum',
    lines: [
      line('l1', 'olive', 65),
      line('l2', 'coconut', 28),
      line('l3', 'castor', 7),
      { ...line('l4', 'water', 100), stage: 'liquid', amount: { value: 100, unit: '%liquid' } },
    ],
  };
}

/** An id of letters, digits and dashes that no other product has. */
async function freeId(db: Knex, name: string): Promise<string> {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60);
  const base = plain || 'bar';
  for (let count = 1; ; count++) {
    const id = count === 1 ? base : `${base}-${count}`;
    if (!(await findProduct(db, id))) return id;
  }
}

/** Makes a new bar from the starter formula. */
export async function createProduct(db: Knex, name: string): Promise<Product> {
  const product: Product = {
    id: await freeId(db, name),
    name,
    identity: 'Soap',
    note: '',
    markets: ['EU', 'UK'],
    bars: 14,
    netMassG: null,
    batchCode: '',
    firstPlacedOn: {},
  };
  await addProduct(db, product, starterFormula(name), new Date().toISOString());
  return product;
}
