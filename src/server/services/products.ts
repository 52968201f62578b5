/** Reading, assessing and saving products. */
import type { Knex } from 'knex';
import { assess, type Result } from '../../core/assess';
import {
  FORMULA_FORMAT,
  MARKETS,
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Material,
  type Stored,
} from '../../core/formula/types';
import type { Assessment } from '../../core/formula/answer';
import { pricePerGram } from '../../core/making/cost';
import type { Mould } from '../../core/making/size';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { fault, HttpFault } from '../http';
import {
  addProduct,
  allProducts,
  findProduct,
  keepVersion,
  keptVersions,
  putProduct,
  saveFormula,
  type Product,
  type ProductWithFormula,
  type SaveOutcome,
  type WorkingVersion,
} from '../repositories/products';
import { allLots } from '../repositories/lots';
import { allMaterials } from '../repositories/materials';
import { findCurrency, findMoulds } from '../repositories/settings';
import { ownMaterialsOfKinds, storedFor } from './cupboard';
import { freeId } from './ids';
import { papersStanding, type PapersStanding } from './materials';

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
  /** Which papers count, by material. */
  papers: Record<string, PapersStanding>;
  /** Price of a gram, by material; only of those that have one. */
  prices: Record<string, number>;
  currency: string;
  moulds: Mould[];
}

/** Gathers a product for the worktable; 404 where there is none. */
export async function worktableData(db: Knex, id: string): Promise<WorktableData> {
  const { product, version } = await requireProduct(db, id);
  const stored = await storedFor(db);
  const ids = new Set(version.formula.lines.map(({ material }) => material));
  const materials = [...ids].flatMap((materialId) => stored.material(materialId) ?? []);
  const alternatives = await ownMaterialsOfKinds(db, new Set(materials.map(({ kind }) => kind)));
  const entries = await allMaterials(db);
  const papers = Object.fromEntries(
    entries
      .filter(({ documents }) => documents.length > 0)
      .map(({ material, documents }) => [material.id, papersStanding(documents)]),
  );
  const { limits, declarables } = stored;
  const { edition } = rulebook();
  const inMarkets = <T extends { markets?: readonly string[] | null }>(entry: T) =>
    !entry.markets || entry.markets.some((market) => (product.markets as string[]).includes(market));
  const rules = {
    limits: limits.filter(inMarkets),
    declarables: declarables.filter(inMarkets),
    demands: stored.demands,
  };
  return {
    product,
    version,
    materials,
    alternatives,
    rules,
    rulebookEdition: edition,
    onDate: today(),
    papers,
    prices: await pricesPerGram(db),
    currency: await findCurrency(db),
    moulds: await findMoulds(db),
  };
}

/** Price of a gram of every material that has one. */
async function pricesPerGram(db: Knex): Promise<Record<string, number>> {
  const lots = await allLots(db);
  const ids = [...new Set(lots.map(({ material }) => material))];
  return Object.fromEntries(
    ids.flatMap((id) => {
      const price = pricePerGram(lots.filter(({ material }) => material === id));
      return price === null ? [] : [[id, price] as const];
    }),
  );
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

/** A product with its saved formula's assessment in every market there is; 404 and 422 as faults. */
export async function assessEverywhere(
  db: Knex,
  id: string,
): Promise<{ product: Product; version: WorkingVersion; assessment: Assessment; materials: Material[] }> {
  const { product, version } = await requireProduct(db, id);
  const request = { ...productRequest(product, version.formula, today()), markets: [...MARKETS] };
  const stored = await storedFor(db);
  const result = assess(request, stored);
  if (!result.ok) throw new HttpFault(422, result.errors);
  const ids = [...new Set(version.formula.lines.map(({ material }) => material))];
  const materials = ids.flatMap((one) => stored.material(one) ?? []);
  return { product, version, assessment: result.assessment, materials };
}

/** What a new bar starts from: plain, balanced, and all of it to be changed. */
export function starterFormula(name: string): Formula {
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
    bars: 14,
    lines: [
      line('l1', 'olive', 65),
      line('l2', 'coconut', 28),
      line('l3', 'castor', 7),
      { ...line('l4', 'water', 100), stage: 'liquid', amount: { value: 100, unit: '%liquid' } },
    ],
  };
}

function freeProductId(db: Knex, name: string): Promise<string> {
  return freeId(name, 'bar', async (id) => (await findProduct(db, id)) !== null);
}

/** Makes a new bar from the starter formula. */
export async function createProduct(db: Knex, name: string): Promise<Product> {
  const product: Product = {
    id: await freeProductId(db, name),
    name,
    identity: 'Soap',
    note: '',
    markets: ['EU', 'UK'],
    netMassG: null,
    batchCode: '',
    firstPlacedOn: {},
  };
  await addProduct(db, product, starterFormula(name), new Date().toISOString());
  return product;
}

/** What a maker may change about a product besides its formula. */
export type ProductDetails = Pick<
  Product,
  'name' | 'identity' | 'note' | 'markets' | 'netMassG' | 'batchCode' | 'firstPlacedOn'
>;

/** Changes a product's details; its formula and versions stay. */
export async function changeDetails(db: Knex, id: string, details: ProductDetails): Promise<Product> {
  const { product } = await requireProduct(db, id);
  const { name, identity, note, markets, netMassG, batchCode, firstPlacedOn } = details;
  const changed = { ...product, name, identity, note, markets, netMassG, batchCode, firstPlacedOn };
  await putProduct(db, changed);
  return changed;
}

/**
 * Starts a variation: a new product with the formula as it stands, not on any market yet and without a net
 * weight or batch of its own.
 */
export async function duplicateProduct(db: Knex, id: string, name: string): Promise<Product> {
  const { product, version } = await requireProduct(db, id);
  const copy: Product = {
    ...product,
    id: await freeProductId(db, name),
    name,
    note: `A variation of ${product.name}.`,
    netMassG: null,
    batchCode: '',
    firstPlacedOn: {},
  };
  await addProduct(db, copy, { ...version.formula, name }, new Date().toISOString());
  return copy;
}

/** One side of a comparison: a bar as it is, or one of its kept versions. */
export interface ComparedSide {
  product: Product;
  /** The version's name; null for the formula as it is now. */
  version: string | null;
  number: number;
  formula: Formula;
  result: Result;
  materials: Material[];
}

/** A product's formula as it is now, or its version of that number; 404 where there is none. */
export async function comparedSide(db: Knex, id: string, number: number | null): Promise<ComparedSide> {
  const { product, version } = await requireProduct(db, id);
  const kept = number === null ? version : (await keptVersions(db, id)).find((one) => one.number === number);
  if (!kept) throw fault(404, 'unknown-version', `${product.name} has no version ${number}.`, 'version');
  const stored = await storedFor(db);
  return {
    product,
    version: number === null ? null : kept.name,
    number: kept.number,
    formula: kept.formula,
    result: assess(productRequest(product, kept.formula, today()), stored),
    materials: kept.formula.lines.flatMap(({ material }) => stored.material(material) ?? []),
  };
}

/** Every bar with the versions kept of it, for choosing what to compare. */
export async function comparables(
  db: Knex,
): Promise<{ id: string; name: string; versions: { number: number; name: string }[] }[]> {
  const products = await allProducts(db);
  return Promise.all(
    products.map(async ({ product: { id, name } }) => ({
      id,
      name,
      versions: (await keptVersions(db, id)).map((version) => ({
        number: version.number,
        name: version.name ?? '',
      })),
    })),
  );
}
