/** The store as a change would make it, without writing anything; what is not on file is told with its path. */
import type { Change, InlineEdition } from '../../../core/change/types';
import type { MaterialDocument } from '../../../core/records/papers';
import { EDITION_NAMES } from '../../../rulebook';
import type { House } from '../../house';
import { fault } from '../../http';
import { findLot } from '../../repositories/lots';
import { allMaterials } from '../../repositories/materials';
import { findProduct } from '../../repositories/products';
import { findHouseRules, type HouseRules } from '../../repositories/settings';
import { makeSnapshot, snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { documentId } from '../../store/materials';

/** Rules with an edition in force, which is taken onto the file where it came inline. */
export function withEdition(rules: HouseRules, edition: string | InlineEdition): HouseRules {
  if (typeof edition === 'string') return { ...rules, editions: { ...rules.editions, inForce: edition } };
  const others = rules.editions.onFile.filter((one) => one.edition !== edition.edition);
  return { ...rules, editions: { inForce: edition.edition, onFile: [...others, edition] } };
}

/** Rules with a limit of the house's own, in the place of one of the same id. */
export function withLimit(rules: HouseRules, limit: HouseRules['ownLimits'][number]): HouseRules {
  return { ...rules, ownLimits: [...rules.ownLimits.filter(({ id }) => id !== limit.id), limit] };
}

async function withPaper(
  { db, today }: House,
  change: Extract<Change, { kind: 'paper' }>,
): Promise<StoreSnapshot> {
  const stored = await allMaterials(db);
  if (!stored.some(({ material }) => material.id === change.material)) {
    const message = `"${change.material}" is not in the cupboard. Take it in first, then its paper.`;
    throw fault(422, 'unknown-material', message, 'change.material');
  }
  const id = await documentId(db, change.paper);
  const added: MaterialDocument = { ...change.paper, id, materialId: change.material, takenOn: today };
  const next = stored.map((one) =>
    one.material.id === change.material
      ? {
          ...one,
          documents: [added, ...one.documents].sort((a, b) => b.issuedOn.localeCompare(a.issuedOn)),
        }
      : one,
  );
  return makeSnapshot(next, await findHouseRules(db), today);
}

async function withRules(
  { db, today }: House,
  change: (rules: HouseRules) => HouseRules,
): Promise<StoreSnapshot> {
  return makeSnapshot(await allMaterials(db), change(await findHouseRules(db)), today);
}

async function checkEdition({ db }: House, edition: string | InlineEdition): Promise<void> {
  if (typeof edition !== 'string') return;
  const { editions } = await findHouseRules(db);
  const known = [...EDITION_NAMES, ...editions.onFile.map((one) => one.edition)];
  if (known.includes(edition)) return;
  const message = `There is no edition "${edition}" on file. On file are: ${known.join(', ')}.`;
  throw fault(422, 'unknown-edition', message, 'change.edition');
}

async function checkSwap(snapshot: StoreSnapshot, { db }: House, change: Extract<Change, { kind: 'swap' }>) {
  for (const side of ['from', 'to'] as const)
    if (!snapshot.material(change[side]))
      throw fault(422, 'unknown-material', `There is no material "${change[side]}".`, `change.${side}`);
  if (change.from === change.to) throw fault(422, 'same', 'Name two different materials.', 'change.to');
  for (const [at, id] of (change.products ?? []).entries())
    if (!(await findProduct(db, id)))
      throw fault(422, 'unknown-product', `There is no bar "${id}".`, `change.products.${at}`);
}

async function checkMarket({ db }: House, change: Extract<Change, { kind: 'market' }>): Promise<void> {
  const found = await findProduct(db, change.product);
  if (!found) throw fault(422, 'unknown-product', `There is no bar "${change.product}".`, 'change.product');
  if (found.product.markets.includes(change.market))
    throw fault(
      422,
      'already-there',
      `${found.product.name} is sold in ${change.market} already.`,
      'change.market',
    );
}

/** Both stores of a change; 422 as faults where it speaks of what is not on file. */
export async function storesOf(
  house: House,
  change: Change,
): Promise<{ before: StoreSnapshot; after: StoreSnapshot }> {
  const before = await snapshotOf(house.db, house.today);
  switch (change.kind) {
    case 'paper':
      return { before, after: await withPaper(house, change) };
    case 'edition':
      await checkEdition(house, change.edition);
      return { before, after: await withRules(house, (rules) => withEdition(rules, change.edition)) };
    case 'limit':
      return { before, after: await withRules(house, (rules) => withLimit(rules, change.limit)) };
    case 'day':
      return { before, after: await snapshotOnDay(house, change.onDate) };
    case 'swap':
      await checkSwap(before, house, change);
      return { before, after: before };
    case 'market':
      await checkMarket(house, change);
      return { before, after: before };
    case 'lot':
      if (!(await findLot(house.db, change.lot)))
        throw fault(422, 'unknown-lot', `There is no lot "${change.lot}".`, 'change.lot');
      return { before, after: before };
  }
}

/** The store as it is, looked at on another day; the one of today stays held. */
async function snapshotOnDay({ db }: House, onDate: string): Promise<StoreSnapshot> {
  return makeSnapshot(await allMaterials(db), await findHouseRules(db), onDate);
}
