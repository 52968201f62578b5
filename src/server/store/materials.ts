/** Materials of the cupboard as several places need them: entries, new ones, papers filed for them. */
import { isFatty } from '../../core/formula/fats';
import type { Knex } from 'knex';
import { remember, type Lesson } from '../../core/paperwork/lessons';
import { conditionsOf, type ConditionStand, type ShownCondition } from '../../core/paperwork/conditions';
import type { WrittenLetter } from '../../core/paperwork/supplier-letter';
import { MARKETS, type Material } from '../../core/formula/types';
import { rulebook } from '../../rulebook';
import { groupBy } from '../../core/group';
import type { Lot } from '../../core/making/cost';
import type { CupboardEntry, StatedMaterial } from '../../core/records/cupboard';
import type { AcceptedPaper } from '../../core/records/papers';
import { libraryMaterial } from '../../library';
import type { House } from '../house';
import { fault, HttpFault } from '../http';
import { markFiled } from '../repositories/inbox';
import { lotsInUse, lotsOf } from '../repositories/lots';
import { addDocument, addMaterial, findMaterial, type StoredMaterial } from '../repositories/materials';
import { findSetting, putSetting } from '../repositories/settings';
import { countHolding, holdingCounts, holdingThroughCounts } from '../repositories/products';
import { snapshotOf, type StoreSnapshot } from './snapshot';
import { once, takenIds, writing } from './writing';
import { freeId } from './ids';
import { papersStanding } from './papers';

/** The mixes that hold a material, with itself. */
export function holdersOf(id: string, snapshot: StoreSnapshot): string[] {
  const mixes = snapshot.stored.filter(
    ({ mix, material }) =>
      mix && snapshot.material(material.id)?.madeOf?.some((part) => part.material === id),
  );
  return [id, ...mixes.map(({ material }) => material.id)];
}

type Shown = Readonly<Record<string, ShownCondition[]>>;

/** What is kept of materials beside them: what papers show, letters to suppliers. */
interface Beside {
  shown: Shown;
  letters: Readonly<Record<string, WrittenLetter[]>>;
}

const besideMaterials = async (db: Knex): Promise<Beside> => ({
  shown: (await findSetting(db, 'shownConditions')).value,
  letters: (await findSetting(db, 'letters')).value,
});

/** How what only papers show stands for a material today, in every market. */
export const standOfConditions = (material: Material, shown: Shown, onDate: string): ConditionStand[] =>
  conditionsOf(material, rulebook().conditions, shown[material.id] ?? [], { markets: MARKETS, onDate });

function entryOf(
  { material, supplier, documents, mix, revision }: StoredMaterial,
  snapshot: StoreSnapshot,
  lots: Lot[],
  usedIn: number,
  { shown, letters }: Beside,
): CupboardEntry {
  return {
    conditions: standOfConditions(snapshot.material(material.id) ?? material, shown, snapshot.onDate),
    letters: letters[material.id] ?? [],
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
  const beside = await besideMaterials(db);
  const wanted = snapshot.stored.filter((stored) => isWanted(stored, snapshot));
  const entries = wanted.map((stored) => {
    const { id } = stored.material;
    return entryOf(stored, snapshot, lots.get(id) ?? [], uses(id), beside);
  });
  return entries.sort((a, b) => a.material.name.localeCompare(b.material.name));
}

/** One material of the cupboard; 404 where there is none. */
export async function cupboardEntry({ db, today }: House, id: string): Promise<CupboardEntry> {
  const snapshot = await snapshotOf(db, today);
  const stored = snapshot.stored.find(({ material }) => material.id === id);
  if (!stored) throw unknown(id);
  const holding = await countHolding(db, holdersOf(id, snapshot));
  return entryOf(stored, snapshot, await lotsOf(db, [id]), holding, await besideMaterials(db));
}

export function unknown(id: string): HttpFault {
  return fault(404, 'unknown-material', `There is no material "${id}" in the cupboard.`, 'id');
}

export async function requireMaterial(db: Knex, id: string): Promise<StoredMaterial> {
  const stored = await findMaterial(db, id);
  if (!stored) throw unknown(id);
  return stored;
}

/** An id for a new material that neither the cupboard nor the starter library knows. */
export function freeMaterialId(trx: Knex, name: string, otherwise: string): Promise<string> {
  return freeId(name, otherwise, async (base) => {
    const taken = new Set(await takenIds(trx, 'materials', base));
    if (libraryMaterial(base)) taken.add(base);
    for (let count = 2; libraryMaterial(`${base}-${count}`); count++) taken.add(`${base}-${count}`);
    return taken;
  });
}

/** What is wrong with what a maker states; nothing where it is sound. */
export function check(material: StatedMaterial): void {
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
