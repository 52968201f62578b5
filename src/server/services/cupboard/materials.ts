/** The cupboard as a screen: what is known of every material, from whom, how old, in which lots, used by what. */
import type { Knex } from 'knex';
import { mixMaterial, type MixPart } from '../../../core/formula/mix';
import type { Material } from '../../../core/formula/types';
import { rowOf } from '../../../core/stock/signs';
import { rulebook } from '../../../rulebook';
import type { CupboardEntry, CupboardRow, StatedMaterial, Uses } from '../../../core/records/cupboard';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { batchesDrawing } from '../../repositories/batches';
import { lotsOf, materialsWithLots, removeLot } from '../../repositories/lots';
import {
  addMix,
  allMaterials,
  findMaterial,
  putMaterial,
  putMix,
  removeDocument,
  removeMaterial,
} from '../../repositories/materials';
import { barsHolding, countHolding } from '../../repositories/products';
import { materialFinder, snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import {
  holdersOf,
  cupboardEntries,
  unknown,
  requireMaterial,
  freeMaterialId,
  check,
  changing,
  makeMaterial,
  takeMaterial,
  type Changed,
  changingFrom,
} from '../../store/materials';

/** The same as lines of a list. */
export async function cupboardRows(house: House): Promise<CupboardRow[]> {
  const minding = { today: house.today, peroxides: rulebook().peroxides };
  const hadLots = new Set(await materialsWithLots(house.db));
  return (await cupboardEntries(house)).map((entry) => {
    const row = rowOf(entry, minding);
    return hadLots.has(row.id) ? { ...row, stockG: row.stockG ?? 0 } : row;
  });
}

/** Bars told at once of those that use a material. */
const MOST_USES = 60;

/** The bars that use a material, by name: how many, and the first of them; 404 where there is no such material. */
export async function usesOf({ db, today }: House, id: string): Promise<Uses> {
  const snapshot = await snapshotOf(db, today);
  await requireMaterial(db, id);
  const holders = holdersOf(id, snapshot);
  const rows = await barsHolding(db, holders, MOST_USES);
  return {
    count: await countHolding(db, holders),
    some: rows.map(({ product, name, material }) => ({
      product,
      name,
      through: material === id ? null : (snapshot.material(material)?.name ?? material),
    })),
  };
}

/** Puts a new material of the maker's own into the cupboard, under an id made from its name. */
export function addOwnMaterial(
  house: House,
  material: StatedMaterial,
  supplier: string | null,
  key: string | null = null,
): Promise<CupboardEntry> {
  return changing(house, (trx) => makeMaterial(trx, material, supplier), key);
}

/** Takes a material of the starter library into the cupboard as it is; nothing changes where it is there already. */
export function takeFromLibrary(house: House, id: string, supplier: string | null): Promise<CupboardEntry> {
  return changing(house, (trx) => takeMaterial(trx, id, supplier));
}

/**
 * Changes a material made from a revision; what the maker did not state stays as it is. A mix is changed through
 * its parts instead.
 */
export function changeMaterial(
  house: House,
  id: string,
  revision: number,
  change: StatedMaterial,
  supplier: string | null | undefined,
): Promise<Changed> {
  return changingFrom(house, id, async (trx) => {
    const stored = await requireMaterial(trx, id);
    if (stored.mix)
      throw fault(422, 'is-a-mix', 'What a mix holds follows from its parts. Change those.', 'id');
    check(change);
    if (stored.revision !== revision) return 'stale';
    const changed: Material = { ...stored.material, ...change, id };
    await putMaterial(trx, changed, supplier === undefined ? stored.supplier : supplier, revision + 1);
    return 'changed';
  });
}

/** Removes the lots of a material; 422 where batches drew from one, whose trace has to be kept. */
async function removeLots(trx: Knex, id: string): Promise<void> {
  for (const lot of await lotsOf(trx, [id])) {
    if ((await batchesDrawing(trx, lot.id)).length > 0) {
      const message = `Lot ${lot.code} went into batches, and its trace is kept. So is its material.`;
      throw fault(422, 'in-use', message, 'id');
    }
    await removeLot(trx, lot.id);
  }
}

/** Removes a material that no bar and no mix uses; 422 with what uses it else. */
export async function discardMaterial(house: House, id: string): Promise<void> {
  await writing(house.db, async (trx) => {
    const stored = await requireMaterial(trx, id);
    const bars = await barsHolding(trx, [id], MOST_USES);
    const mixes = (await allMaterials(trx)).filter(({ mix }) => mix?.some(({ material }) => material === id));
    const users = [...bars.map(({ name }) => name), ...mixes.map(({ material }) => material.name)];
    if (users.length > 0) {
      const message = `${stored.material.name} is used in ${users.join(', ')}. Take it out there first.`;
      throw fault(422, 'in-use', message, 'id');
    }
    await removeLots(trx, id);
    await removeMaterial(trx, id);
  });
}

/** Takes a paper off the file again. */
export function withdrawPaper(house: House, materialId: string, id: string): Promise<CupboardEntry> {
  return changing(house, async (trx) => {
    if (await removeDocument(trx, materialId, id)) return materialId;
    throw fault(404, 'unknown-document', `There is no paper "${id}" on file for this material.`, 'document');
  });
}

async function checkMix(
  trx: Knex,
  onDate: string,
  id: string,
  name: string,
  parts: MixPart[],
): Promise<void> {
  const stored = await allMaterials(trx);
  const material: Material = { id, name, kind: 'other' };
  const find = materialFinder(
    [
      ...stored.filter((entry) => entry.material.id !== id),
      { material, supplier: null, documents: [], mix: parts, revision: 1 },
    ],
    onDate,
  );
  const result = mixMaterial({ id, name, parts }, find);
  if (!result.ok) throw new HttpFault(422, result.errors);
}

/** Makes a new mix: a blend, an infusion or a premix. */
export function createMix(
  house: House,
  name: string,
  parts: MixPart[],
  key: string | null = null,
): Promise<CupboardEntry> {
  const action = async (trx: Knex) => {
    const id = await freeMaterialId(trx, name, 'mix');
    await checkMix(trx, house.today, id, name, parts);
    await addMix(trx, id, name, parts);
    return id;
  };
  return changing(house, action, key, 'mix');
}

/** Changes a mix; answers the newer one where it was changed in between. */
export function changeMix(
  house: House,
  id: string,
  revision: number,
  name: string,
  parts: MixPart[],
): Promise<Changed> {
  return changingFrom(house, id, async (trx) => {
    const stored = await findMaterial(trx, id);
    if (!stored?.mix) throw unknown(id);
    await checkMix(trx, house.today, id, name, parts);
    if (stored.revision !== revision) return 'stale';
    await putMix(trx, { material: { ...stored.material, name }, mix: parts, revision: revision + 1 });
    return 'changed';
  });
}
