/** The cupboard as a screen: what is known of every material, from whom, how old, in which lots, used by what. */
import type { Knex } from 'knex';
import { mixMaterial, type MixPart } from '../../core/formula/mix';
import type { Material } from '../../core/formula/types';
import type { Lot } from '../../core/making/cost';
import { governingPaper, type Governing } from '../../core/paperwork/governing';
import { libraryMaterial } from '../../library';
import type { LibraryMaterial } from '../../library/types';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { fault, HttpFault } from '../http';
import { findLot, allLots, putLot, removeLot } from '../repositories/lots';
import {
  addDocument,
  addMix,
  allMaterials,
  findMaterial,
  hasDocument,
  putMaterial,
  removeDocument,
  removeMaterial,
  saveMix,
  type MaterialDocument,
  type StoredMaterial,
} from '../repositories/materials';
import { markFiled } from '../repositories/inbox';
import { allProducts } from '../repositories/products';
import { materialFinder } from './cupboard';
import { freeId } from './ids';

/** A bar that uses a material, on a line of its own or within a mix. */
export interface Use {
  product: string;
  name: string;
  /** The mix it is used through, by name; null where it stands on a line of its own. */
  through: string | null;
}

export interface PapersStanding {
  certificate: Governing<MaterialDocument> | null;
  allergens: Governing<MaterialDocument> | null;
}

export interface CupboardEntry {
  /** As it counts today: with paperwork, mixes resolved. */
  material: Material & Partial<LibraryMaterial>;
  /** As the maker wrote it down, for changing it; a mix has only its name here. */
  written: Material;
  supplier: string | null;
  papers: PapersStanding;
  lots: Lot[];
  mix: MixPart[] | null;
  revision: number;
  uses: Use[];
  /** Whether the starter library knows it, so that it is not wholly the maker's own. */
  isFromLibrary: boolean;
}

/** Which papers count for a material today. */
export function papersStanding(documents: readonly MaterialDocument[]): PapersStanding {
  const { newestEdition } = rulebook().scentStandard;
  const counting = (type: MaterialDocument['type']) =>
    governingPaper(documents, type, today(), newestEdition);
  return { certificate: counting('certificate'), allergens: counting('allergens') };
}

async function usesOf(
  db: Knex,
  find: (id: string) => Material | undefined,
): Promise<ReadonlyMap<string, Use[]>> {
  const uses = new Map<string, Use[]>();
  const note = (material: string, use: Use) => {
    const known = uses.get(material) ?? [];
    if (known.some(({ product, through }) => product === use.product && through === use.through)) return;
    uses.set(material, [...known, use]);
  };
  for (const { product, version } of await allProducts(db)) {
    for (const line of version.formula.lines) {
      const material = find(line.material);
      const use = { product: product.id, name: product.name };
      note(line.material, { ...use, through: null });
      for (const part of material?.madeOf ?? []) note(part.material, { ...use, through: material!.name });
    }
  }
  return uses;
}

/** Every material of the maker's cupboard, by name. */
export async function cupboardEntries(db: Knex): Promise<CupboardEntry[]> {
  const stored = await allMaterials(db);
  const find = materialFinder(stored);
  const [uses, lots] = [await usesOf(db, find), await allLots(db)];
  const entries = stored.map(({ material, supplier, documents, mix, revision }): CupboardEntry => ({
    material: find(material.id) ?? material,
    written: material,
    supplier,
    papers: papersStanding(documents),
    lots: lots.filter((lot) => lot.material === material.id),
    mix,
    revision,
    uses: uses.get(material.id) ?? [],
    isFromLibrary: libraryMaterial(material.id) !== undefined,
  }));
  return entries.sort((a, b) => a.material.name.localeCompare(b.material.name));
}

/** One material of the cupboard; 404 where there is none. */
export async function cupboardEntry(db: Knex, id: string): Promise<CupboardEntry> {
  const entry = (await cupboardEntries(db)).find(({ material }) => material.id === id);
  if (!entry) throw unknown(id);
  return entry;
}

function unknown(id: string): HttpFault {
  return fault(404, 'unknown-material', `There is no material "${id}" in the cupboard.`, 'id');
}

async function requireMaterial(db: Knex, id: string): Promise<StoredMaterial> {
  const stored = await findMaterial(db, id);
  if (!stored) throw unknown(id);
  return stored;
}

async function isTaken(db: Knex, id: string): Promise<boolean> {
  return libraryMaterial(id) !== undefined || (await findMaterial(db, id)) !== null;
}

/** What a maker may state about a material; anything else that is sent is left out. */
const STATED = [
  'name',
  'kind',
  'saponification',
  'fatPct',
  'fatSaponification',
  'waterPct',
  'alkaliUptake',
  'formedInci',
  'bulkDensity',
  'density',
  'inci',
  'constituents',
  'limits',
  'fattyAcids',
] as const satisfies readonly (keyof Material)[];

export type StatedMaterial = Pick<Material, (typeof STATED)[number]>;

/** The stated fields alone; 422 where a limit of the maker's own claims to be more than advice. */
function stated(material: StatedMaterial): StatedMaterial {
  const claimed = (material.limits ?? []).findIndex(({ force }) => force !== 'craft');
  if (claimed >= 0) {
    const message = 'A limit of your own is advice (craft). What binds comes from a paper on file.';
    throw fault(422, 'not-craft', message, `material.limits.${claimed}.force`);
  }
  const fatty = material.kind === 'fat' || material.kind === 'wax';
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
  return Object.fromEntries(
    STATED.filter((key) => material[key] !== undefined).map((key) => [key, material[key]]),
  ) as unknown as StatedMaterial;
}

/** Puts a new material of the maker's own into the cupboard, under an id made from its name. */
export async function addOwnMaterial(
  db: Knex,
  material: StatedMaterial,
  supplier: string | null,
): Promise<CupboardEntry> {
  const own = stated(material);
  const id = await freeId(own.name, 'material', (candidate) => isTaken(db, candidate));
  await putMaterial(db, { ...own, id }, supplier);
  return cupboardEntry(db, id);
}

/** Takes a material of the starter library into the cupboard as it is; nothing changes where it is there already. */
export async function takeFromLibrary(db: Knex, id: string, supplier: string | null): Promise<CupboardEntry> {
  if (!(await findMaterial(db, id))) {
    const material = libraryMaterial(id);
    if (!material) {
      throw fault(404, 'unknown-material', `The starter library has no material "${id}".`, 'id');
    }
    await putMaterial(db, material, supplier);
  }
  return cupboardEntry(db, id);
}

/** Changes a material; what the maker did not state stays as it is. A mix is changed through its parts instead. */
export async function changeMaterial(
  db: Knex,
  id: string,
  change: StatedMaterial,
  supplier: string | null | undefined,
): Promise<CupboardEntry> {
  const stored = await requireMaterial(db, id);
  if (stored.mix) {
    throw fault(422, 'is-a-mix', 'What a mix holds follows from its parts. Change those.', 'id');
  }
  const changed = { ...stored.material, ...stated(change), id };
  await putMaterial(db, changed, supplier === undefined ? stored.supplier : supplier);
  return cupboardEntry(db, id);
}

/** Removes a material that no bar and no mix uses; 422 with what uses it else. */
export async function discardMaterial(db: Knex, id: string): Promise<void> {
  const entry = await cupboardEntry(db, id);
  const mixes = (await allMaterials(db)).filter(({ mix }) => mix?.some(({ material }) => material === id));
  const users = [...entry.uses.map(({ name }) => name), ...mixes.map(({ material }) => material.name)];
  if (users.length > 0) {
    const message = `${entry.material.name} is used in ${users.join(', ')}. Take it out there first.`;
    throw fault(422, 'in-use', message, 'id');
  }
  await removeMaterial(db, id);
}

/** What the maker accepted of a paper. */
export type AcceptedPaper = Omit<MaterialDocument, 'id' | 'materialId' | 'takenOn'>;
/** A lot as the maker states it. */
export type StatedLot = Omit<Lot, 'id' | 'material'>;

/** Files what was accepted of a paper, in one transaction, and notes that the inbox's paper was taken in. */
export async function filePapers(
  db: Knex,
  materialId: string,
  documents: readonly AcceptedPaper[],
  inboxId: string | null,
): Promise<CupboardEntry> {
  await requireMaterial(db, materialId);
  await db.transaction(async (trx) => {
    for (const document of documents) {
      const prefix = document.type === 'certificate' ? 'cert' : 'allergens';
      const id = await freeId(`${prefix} ${document.number}`, prefix, (candidate) =>
        hasDocument(trx, candidate),
      );
      await addDocument(trx, { ...document, id, materialId, takenOn: today() });
    }
    if (inboxId !== null) await markFiled(trx, inboxId, today());
  });
  return cupboardEntry(db, materialId);
}

/** Takes a paper off the file again. */
export async function withdrawPaper(db: Knex, materialId: string, id: string): Promise<CupboardEntry> {
  if (!(await removeDocument(db, materialId, id))) {
    throw fault(404, 'unknown-document', `There is no paper "${id}" on file for this material.`, 'document');
  }
  return cupboardEntry(db, materialId);
}

/** Adds a lot to a material, or changes one of its lots. */
export async function saveLot(
  db: Knex,
  materialId: string,
  lotId: string | null,
  lot: StatedLot,
): Promise<CupboardEntry> {
  await requireMaterial(db, materialId);
  if (lot.leftG > lot.quantityG) {
    throw fault(422, 'more-left-than-bought', 'No more can be left than was bought.', 'leftG');
  }
  const known = lotId === null ? null : await findLot(db, lotId);
  if (lotId !== null && known?.material !== materialId) {
    throw fault(404, 'unknown-lot', `There is no lot "${lotId}" of this material.`, 'lot');
  }
  const id =
    lotId ??
    (await freeId(`${materialId} ${lot.code}`, 'lot', async (one) => (await findLot(db, one)) !== null));
  await putLot(db, { ...lot, id, material: materialId });
  return cupboardEntry(db, materialId);
}

/** Removes a lot. */
export async function discardLot(db: Knex, materialId: string, lotId: string): Promise<CupboardEntry> {
  const lot = await findLot(db, lotId);
  if (lot?.material !== materialId || !(await removeLot(db, lotId))) {
    throw fault(404, 'unknown-lot', `There is no lot "${lotId}" of this material.`, 'lot');
  }
  return cupboardEntry(db, materialId);
}

async function checkMix(db: Knex, id: string, name: string, parts: MixPart[]): Promise<void> {
  const stored = await allMaterials(db);
  const find = materialFinder([
    ...stored.filter(({ material }) => material.id !== id),
    { material: { id, name, kind: 'other' }, supplier: null, documents: [], mix: parts, revision: 1 },
  ]);
  const result = mixMaterial({ id, name, parts }, find);
  if (!result.ok) throw new HttpFault(422, result.errors);
}

/** Makes a new mix: a blend, an infusion or a premix. */
export async function createMix(db: Knex, name: string, parts: MixPart[]): Promise<CupboardEntry> {
  const id = await freeId(name, 'mix', (candidate) => isTaken(db, candidate));
  await checkMix(db, id, name, parts);
  await addMix(db, id, name, parts);
  return cupboardEntry(db, id);
}

/** Changes a mix; answers the newer one where it was changed in between. */
export async function changeMix(
  db: Knex,
  id: string,
  fromRevision: number,
  name: string,
  parts: MixPart[],
): Promise<{ entry: CupboardEntry } | { stale: CupboardEntry }> {
  await checkMix(db, id, name, parts);
  const { outcome } = await saveMix(db, id, fromRevision, name, parts);
  if (outcome === 'missing') throw unknown(id);
  const entry = await cupboardEntry(db, id);
  return outcome === 'stale' ? { stale: entry } : { entry };
}
