/** The cupboard as a screen: what is known of every material, from whom, how old, in which lots, used by what. */
import { isFatty } from '../../../core/formula/fats';
import type { Knex } from 'knex';
import { remember, type Lesson } from '../../../core/paperwork/lessons';
import { mixMaterial, type MixPart } from '../../../core/formula/mix';
import type { Material } from '../../../core/formula/types';
import { groupBy } from '../../../core/group';
import type { Lot } from '../../../core/making/cost';
import { rowOf } from '../../../core/stock/signs';
import { rulebook } from '../../../rulebook';
import type { CupboardEntry, CupboardRow, StatedMaterial, Uses } from '../../../core/records/cupboard';
import type { AcceptedPaper } from '../../../core/records/papers';
import { libraryMaterial } from '../../../library';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { markFiled } from '../../repositories/inbox';
import { batchesDrawing } from '../../repositories/batches';
import { lotsInUse, lotsOf, materialsWithLots, removeLot } from '../../repositories/lots';
import {
  addDocument,
  addMaterial,
  addMix,
  allMaterials,
  findMaterial,
  putMaterial,
  putMix,
  removeDocument,
  removeMaterial,
  type StoredMaterial,
} from '../../repositories/materials';
import { findSetting, putSetting } from '../../repositories/settings';
import { barsHolding, countHolding, holdingCounts, holdingThroughCounts } from '../../repositories/products';
import { materialFinder, snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { once, takenIds, writing } from '../../store/writing';
import { freeId } from '../../store/ids';
import { papersStanding } from '../../store/papers';

/** The mixes that hold a material, with itself. */
function holdersOf(id: string, snapshot: StoreSnapshot): string[] {
  const mixes = snapshot.stored.filter(
    ({ mix, material }) =>
      mix && snapshot.material(material.id)?.madeOf?.some((part) => part.material === id),
  );
  return [id, ...mixes.map(({ material }) => material.id)];
}

function entryOf(
  { material, supplier, documents, mix, revision }: StoredMaterial,
  snapshot: StoreSnapshot,
  lots: Lot[],
  usedIn: number,
): CupboardEntry {
  return {
    material: snapshot.material(material.id) ?? material,
    written: material,
    supplier,
    papers: papersStanding(documents, snapshot.onDate),
    lots,
    mix,
    revision,
    usedIn,
    isFromLibrary: libraryMaterial(material.id) !== undefined,
  };
}

/** How many bars use each material, on lines of their own or through mixes. */
async function usedIn(db: Knex, snapshot: StoreSnapshot): Promise<(id: string) => number> {
  const holders = new Map<string, string[]>();
  for (const { material, mix } of snapshot.stored) {
    if (!mix) continue;
    for (const part of snapshot.material(material.id)?.madeOf ?? [])
      holders.set(part.material, [...(holders.get(part.material) ?? []), material.id]);
  }
  const own = await holdingCounts(db);
  const through = await holdingThroughCounts(db, holders);
  return (id) => (holders.has(id) ? through.get(id) : own.get(id)) ?? 0;
}

/** The materials of the maker's cupboard, all or those wanted, by name, with the lots that are not empty. */
export async function cupboardEntries(
  { db, today }: House,
  isWanted: (stored: StoredMaterial, snapshot: StoreSnapshot) => boolean = () => true,
): Promise<CupboardEntry[]> {
  const snapshot = await snapshotOf(db, today);
  const lots = groupBy(await lotsInUse(db), ({ material }) => material);
  const uses = await usedIn(db, snapshot);
  const wanted = snapshot.stored.filter((stored) => isWanted(stored, snapshot));
  const entries = wanted.map((stored) => {
    const { id } = stored.material;
    return entryOf(stored, snapshot, lots.get(id) ?? [], uses(id));
  });
  return entries.sort((a, b) => a.material.name.localeCompare(b.material.name));
}

/** The same as lines of a list. */
export async function cupboardRows(house: House): Promise<CupboardRow[]> {
  const minding = { today: house.today, peroxides: rulebook().peroxides };
  const hadLots = new Set(await materialsWithLots(house.db));
  return (await cupboardEntries(house)).map((entry) => {
    const row = rowOf(entry, minding);
    return hadLots.has(row.id) ? { ...row, stockG: row.stockG ?? 0 } : row;
  });
}

/** One material of the cupboard; 404 where there is none. */
export async function cupboardEntry({ db, today }: House, id: string): Promise<CupboardEntry> {
  const snapshot = await snapshotOf(db, today);
  const stored = snapshot.stored.find(({ material }) => material.id === id);
  if (!stored) throw unknown(id);
  const holding = await countHolding(db, holdersOf(id, snapshot));
  return entryOf(stored, snapshot, await lotsOf(db, [id]), holding);
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

function unknown(id: string): HttpFault {
  return fault(404, 'unknown-material', `There is no material "${id}" in the cupboard.`, 'id');
}

export async function requireMaterial(db: Knex, id: string): Promise<StoredMaterial> {
  const stored = await findMaterial(db, id);
  if (!stored) throw unknown(id);
  return stored;
}

/** An id for a new material that neither the cupboard nor the starter library knows. */
function freeMaterialId(trx: Knex, name: string, otherwise: string): Promise<string> {
  return freeId(name, otherwise, async (base) => {
    const taken = new Set(await takenIds(trx, 'materials', base));
    if (libraryMaterial(base)) taken.add(base);
    for (let count = 2; libraryMaterial(`${base}-${count}`); count++) taken.add(`${base}-${count}`);
    return taken;
  });
}

/** What is wrong with what a maker states; nothing where it is sound. */
function check(material: StatedMaterial): void {
  const claimed = (material.limits ?? []).findIndex(({ force }) => force !== 'craft');
  if (claimed >= 0) {
    const message = 'A limit of your own is advice (craft). What binds comes from a paper on file.';
    throw fault(422, 'not-craft', message, `material.limits.${claimed}.force`);
  }
  const fatty = isFatty(material);
  if (fatty && !material.saponification) {
    const message = 'Say how it saponifies: grams of sodium hydroxide for a gram, 0 where none of it does.';
    throw fault(422, 'saponification-missing', message, 'material.saponification');
  }
  const wrong = (material.constituents ?? []).findIndex(
    ({ lowPct, typicalPct, highPct }) => lowPct > typicalPct || typicalPct > highPct,
  );
  if (wrong >= 0) {
    const message = 'A constituent’s range runs from low to high.';
    throw fault(422, 'range-order', message, `material.constituents.${wrong}`);
  }
}

/** Runs a user action on one material and answers how it stands afterwards. */
export async function changing(
  house: House,
  action: (trx: Knex) => Promise<string>,
  key: string | null = null,
  kind = 'material',
): Promise<CupboardEntry> {
  const id = await writing(house.db, (trx) => once(trx, key, kind, house.now, () => action(trx)));
  return cupboardEntry(house, id);
}

/** Within a transaction: a new material of the maker's own, under an id made from its name, which is answered. */
export async function makeMaterial(
  trx: Knex,
  material: StatedMaterial,
  supplier: string | null,
): Promise<string> {
  check(material);
  const id = await freeMaterialId(trx, material.name, 'material');
  await addMaterial(trx, { ...material, id }, supplier);
  return id;
}

/** Within a transaction: a material of the starter library as it is; nothing changes where it is there already. */
export async function takeMaterial(trx: Knex, id: string, supplier: string | null): Promise<string> {
  if (await findMaterial(trx, id)) return id;
  const material = libraryMaterial(id);
  if (!material) throw fault(404, 'unknown-material', `The starter library has no material "${id}".`, 'id');
  await addMaterial(trx, material, supplier);
  return id;
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

/** What a change comes back with: how it stands now, or the newer state that it would have overwritten. */
export type Changed = { entry: CupboardEntry } | { stale: CupboardEntry };

/** Runs a change that may turn out stale, and answers how the material stands afterwards. */
export async function changingFrom(
  house: House,
  id: string,
  change: (trx: Knex) => Promise<'changed' | 'stale'>,
): Promise<Changed> {
  const outcome = await writing(house.db, change);
  const entry = await cupboardEntry(house, id);
  return outcome === 'stale' ? { stale: entry } : { entry };
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

/** An id that no document has, from the paper's number. */
export function documentId(
  db: Knex,
  { type, number }: Pick<AcceptedPaper, 'type' | 'number'>,
): Promise<string> {
  const prefix = type === 'certificate' ? 'cert' : 'allergens';
  return freeId(`${prefix} ${number}`, prefix, (base) => takenIds(db, 'documents', base));
}

/**
 * Files what was accepted of a paper, in one transaction, with what its corrections teach, and notes that the
 * inbox's paper was taken in.
 */
export function filePapers(
  house: House,
  materialId: string,
  documents: readonly AcceptedPaper[],
  inboxId: string | null,
  lessons: readonly Lesson[],
  key: string | null = null,
): Promise<CupboardEntry> {
  const action = async (trx: Knex) => {
    await requireMaterial(trx, materialId);
    if (lessons.length > 0) {
      const { value: known } = await findSetting(trx, 'paperLessons');
      await putSetting(trx, 'paperLessons', remember(known, lessons));
    }
    for (const document of documents) {
      const id = await documentId(trx, document);
      await addDocument(trx, { ...document, id, materialId, takenOn: house.today });
    }
    if (inboxId !== null && !(await markFiled(trx, inboxId, house.today))) {
      throw fault(404, 'unknown-paper', `There is no paper "${inboxId}" in the inbox.`, 'inbox');
    }
    return materialId;
  };
  return changing(house, action, key, 'papers');
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
