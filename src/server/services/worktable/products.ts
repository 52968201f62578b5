/** Bars: reading, saving, keeping versions, making new ones, putting them away. */
import { marketRules } from '../../../rulebook/markets';
import { rulebook } from '../../../rulebook';
import { storageCaution } from '../../../core/scent/storage';
import type { Knex } from 'knex';
import { compareFormulas } from '../../../core/formula/compare';
import { assess } from '../../../core/assess';
import type { School } from '../../../core/formula/answer';
import { MARKETS, type Formula, type Market } from '../../../core/formula/types';
import { PURPOSE, purposeFormula } from '../../../core/formula/purposes';
import { groupBy } from '../../../core/group';
import { pricePerGram } from '../../../core/making/cost';
import type {
  Comparable,
  ComparedSide,
  LyeCheck,
  Product,
  WorkingVersion,
  WorktableData,
} from '../../../core/records/product';
import type { NewProduct } from '../../doors/product';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { allBatches } from '../../repositories/batches';
import { pricedLots, lotsOf } from '../../repositories/lots';
import {
  addProduct,
  comparableBars,
  keptVersions,
  nearestRelative,
  nameVersion,
  putFormula,
  putProduct,
  removeProduct,
} from '../../repositories/products';
import { findCurrency, findSetting } from '../../repositories/settings';
import { issuedCount, findWrap } from '../../repositories/wraps';
import { materialsOf, snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { once, writing } from '../../store/writing';
import { conditionsOfBar } from '../../store/conditions';
import { papersStanding } from '../../store/papers';
import { requireProduct, freeProductId, freshProduct } from '../../store/products';
import { productRequest } from '../../store/assessed';

/** Gathers a product for the worktable: what its own lines need, and no more. 404 where there is none. */
export async function worktableData({ db, today }: House, id: string): Promise<WorktableData> {
  const { product, version } = await requireProduct(db, id);
  const snapshot = await snapshotOf(db, today);
  const materials = materialsOf(version.formula, snapshot);
  const ids = new Set(materials.map((material) => material.id));
  const papers = Object.fromEntries(
    snapshot.stored
      .filter(({ material, documents }) => documents.length > 0 && ids.has(material.id))
      .map(({ material, documents }) => [material.id, papersStanding(documents, today)]),
  );
  const inMarkets = <T extends { markets?: readonly string[] | null }>(entry: T) =>
    !entry.markets || entry.markets.some((market) => (product.markets as string[]).includes(market));
  const { value: moulds, revision: mouldsRevision } = await findSetting(db, 'moulds');
  return {
    product,
    version,
    materials,
    rules: {
      limits: snapshot.limits.filter(inMarkets),
      declarables: snapshot.declarables.filter(inMarkets),
      demands: snapshot.demands,
    },
    rulebookEdition: snapshot.edition,
    onDate: today,
    schools: await schoolsOf(db, id),
    oldBottles: await oldBottles(db, [...ids], snapshot),
    papers,
    conditions: await conditionsOfBar(db, materials, product.markets, today),
    prices: await pricesPerGram(db),
    currency: await findCurrency(db),
    moulds,
    mouldsRevision,
  };
}

/** The school of the list by market: as the wrap has it, else as it is usual there. */
async function schoolsOf(db: Knex, id: string): Promise<Record<Market, School>> {
  const chosen = (await findWrap(db, id))?.wrap.markets ?? {};
  const of = (market: Market) => chosen[market]?.school ?? marketRules(market).usualSchool;
  return Object.fromEntries(MARKETS.map((market) => [market, of(market)])) as Record<Market, School>;
}

/** What age does to the bottle of each material that would be taken: of what is left, the opened before the closed, the older first. */
async function oldBottles(
  db: Knex,
  ids: readonly string[],
  snapshot: StoreSnapshot,
): Promise<Record<string, string>> {
  const { onDate } = snapshot;
  const lots = groupBy(await lotsOf(db, ids), ({ material }) => material);
  return Object.fromEntries(
    [...lots].flatMap(([id, all]) => {
      const there = all.filter(({ leftG, quarantine }) => leftG > 0 && quarantine === null);
      const lot = there.find(({ openedOn }) => openedOn !== null) ?? there[0];
      const material = snapshot.material(id);
      const caution = lot && material && storageCaution(material, lot, onDate, rulebook().peroxides);
      return caution ? [[id, `Lot ${lot.code} was ${caution}`]] : [];
    }),
  );
}

/** Price of a gram of every material that has one. */
export async function pricesPerGram(db: Knex): Promise<Record<string, number>> {
  const byMaterial = groupBy(await pricedLots(db), ({ material }) => material);
  return Object.fromEntries(
    [...byMaterial].flatMap(([id, lots]) => {
      const price = pricePerGram(lots);
      return price === null ? [] : [[id, price] as const];
    }),
  );
}

/** What a save comes back with: the version saved, or the newer one it would have overwritten. */
type Saved = { version: WorkingVersion } | { stale: WorkingVersion };

/** Saves a formula that reckons; 422 with paths where it does not, 409 with the newer version where stale. */
export async function saveProductFormula(
  { db, today, now }: House,
  id: string,
  revision: number,
  formula: Formula,
): Promise<Saved> {
  const snapshot = await snapshotOf(db, today);
  return writing(db, async (trx) => {
    const { product, version } = await requireProduct(trx, id);
    const result = assess(productRequest(product, formula, today), snapshot);
    if (!result.ok) throw new HttpFault(422, result.errors);
    if (version.revision !== revision) return { stale: version };
    const saved = { ...version, revision: revision + 1, savedAt: now, formula };
    return { version: await putFormula(trx, id, saved) };
  });
}

/** The versions kept under a name, newest first. */
export async function productVersions({ db }: House, id: string): Promise<WorkingVersion[]> {
  await requireProduct(db, id);
  return keptVersions(db, id);
}

/** Keeps what is on file under a name and carries on from it. */
export function keepProductVersion(
  { db, now }: House,
  id: string,
  revision: number,
  name: string,
): Promise<Saved> {
  return writing(db, async (trx) => {
    const { version } = await requireProduct(trx, id);
    if (version.revision !== revision) return { stale: version };
    return { version: await nameVersion(trx, id, version, name, now) };
  });
}

/**
 * Makes a new bar: of its own formula, of one that fits its purpose, or plain. 422 where a formula of its own does not
 * reckon. `key` names the request, so that one sent twice makes one bar.
 */
export function createProduct(
  { db, now, today }: House,
  wanted: NewProduct,
  key: string | null = null,
): Promise<Product> {
  const { name, purpose = 'plain', formula } = wanted;
  return writing(db, (trx) =>
    once(trx, key, 'new bar', now, async () => {
      const fresh = await freshProduct(trx, name);
      const product = wanted.purpose ? { ...fresh, note: PURPOSE[purpose].reasons[0]! } : fresh;
      if (formula) {
        const result = assess(productRequest(product, formula, today), await snapshotOf(trx, today));
        if (!result.ok) throw new HttpFault(422, result.errors);
      }
      await addProduct(trx, product, formula ?? purposeFormula(purpose, name), now);
      return product;
    }),
  );
}

/** Keeps that the lye was found again by a second way, with the formula it was of; 404 where there is no such bar. */
export function checkLye(
  { db, today }: House,
  id: string,
  { alkaliG, secondG, by }: Omit<LyeCheck, 'revision' | 'on'>,
): Promise<Product> {
  return writing(db, async (trx) => {
    const { product, version } = await requireProduct(trx, id);
    const lyeCheck: LyeCheck = { alkaliG, secondG, by, on: today, revision: version.revision };
    const checked = { ...product, lyeCheck };
    await putProduct(trx, checked);
    return checked;
  });
}

/** Puts a bar away, kept but out of the range, or brings it back. */
export function putAway({ db, today }: House, id: string, away: boolean): Promise<Product> {
  return writing(db, async (trx) => {
    const { product } = await requireProduct(trx, id);
    const changed = { ...product, revision: product.revision + 1, putAwayOn: away ? today : null };
    await putProduct(trx, changed);
    return changed;
  });
}

/** Deletes a bar that was never sold and has no label issued; 422 with why not else. */
export function discardProduct({ db, today }: House, id: string): Promise<void> {
  return writing(db, async (trx) => {
    const { product } = await requireProduct(trx, id);
    const sold = Object.values(product.firstPlacedOn).some((day) => day <= today);
    const hasLabels = (await issuedCount(trx, id)) > 0;
    const hasBatches = (await allBatches(trx, id)).length > 0;
    if (sold || hasLabels || hasBatches) {
      const why = hasLabels
        ? 'labels were issued for it'
        : hasBatches
          ? 'batches of it were poured'
          : 'it has come on a market';
      const message = `${product.name} cannot be deleted: ${why}. Put it away instead; everything of it is kept.`;
      throw fault(422, 'in-use', message, 'id');
    }
    await removeProduct(trx, id);
  });
}

/**
 * Starts a variation: a new product with the formula as it stands, not on any market yet and without a net
 * weight or batch of its own.
 */
export function duplicateProduct(
  { db, now }: House,
  id: string,
  name: string,
  key: string | null = null,
): Promise<Product> {
  return writing(db, (trx) =>
    once(trx, key, 'variation', now, async () => {
      const { product, version } = await requireProduct(trx, id);
      const copy: Product = {
        ...product,
        id: await freeProductId(trx, name),
        name,
        note: `A variation of ${product.name}.`,
        netMassG: null,
        batchCode: '',
        firstPlacedOn: {},
        revision: 1,
        putAwayOn: null,
      };
      await addProduct(trx, copy, { ...version.formula, name }, now);
      return copy;
    }),
  );
}

/** A product's formula as it is now, or its version of that number; 404 where there is none. */
export async function comparedSide(
  { db, today }: House,
  id: string,
  number: number | null,
): Promise<ComparedSide> {
  const { product, version } = await requireProduct(db, id);
  const kept = number === null ? version : (await keptVersions(db, id)).find((one) => one.number === number);
  if (!kept) throw fault(404, 'unknown-version', `${product.name} has no version ${number}.`, 'version');
  const snapshot = await snapshotOf(db, today);
  return {
    product,
    version: number === null ? null : kept.name,
    number: kept.number,
    formula: kept.formula,
    result: assess(productRequest(product, kept.formula, today), snapshot),
    materials: materialsOf(kept.formula, snapshot),
  };
}

/** What to put beside a bar first: its last version that differs, else the bar that shares most of its materials. */
export async function nearestSide(house: House, id: string): Promise<ComparedSide | null> {
  const { version } = await requireProduct(house.db, id);
  const versions = await keptVersions(house.db, id);
  const last = versions.findLast(({ formula }) => compareFormulas(formula, version.formula).length > 0);
  if (last) return comparedSide(house, id, last.number);
  const relative = await nearestRelative(house.db, id);
  return relative === null ? null : comparedSide(house, relative, null);
}

/** Every bar with the versions kept of it, for choosing what to compare. */
export function comparables({ db }: House): Promise<Comparable[]> {
  return comparableBars(db);
}
