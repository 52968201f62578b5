/** The cupboard: stored materials, mixes among them, and the documents on file for them. */
import type { Knex } from 'knex';
import type { MixPart } from '../../core/formula/mix';
import type { Material } from '../../core/formula/types';
import type { MaterialDocument } from '../../core/records/papers';

export interface StoredMaterial {
  material: Material;
  supplier: string | null;
  documents: MaterialDocument[];
  /** The parts of a mix, by weight; null for anything else. */
  mix: MixPart[] | null;
  /** Counts every change; a change names the revision it was made from. */
  revision: number;
}

interface MaterialRow {
  id: string;
  supplier: string | null;
  body: string;
  mix: string | null;
  revision: number;
}

interface DocumentRow {
  body: string;
}

const COLUMNS = ['id', 'supplier', 'body', 'mix', 'revision'] as const;

function fromRow(row: MaterialRow, documents: MaterialDocument[]): StoredMaterial {
  return {
    material: JSON.parse(row.body) as Material,
    supplier: row.supplier,
    documents,
    mix: row.mix === null ? null : (JSON.parse(row.mix) as MixPart[]),
    revision: row.revision,
  };
}

/** All stored materials with their documents, newest document first. */
export async function allMaterials(db: Knex): Promise<StoredMaterial[]> {
  const rows: MaterialRow[] = await db('materials')
    .select(...COLUMNS)
    .orderBy('name');
  const documentRows: DocumentRow[] = await db('documents')
    .select('body')
    .orderBy('issued_on', 'desc')
    // Of two of one day the one filed later counts.
    .orderBy('rowid', 'desc');
  const byMaterial = new Map<string, MaterialDocument[]>();
  for (const { body } of documentRows) {
    const document = JSON.parse(body) as MaterialDocument;
    byMaterial.set(document.materialId, [...(byMaterial.get(document.materialId) ?? []), document]);
  }
  return rows.map((row) => fromRow(row, byMaterial.get(row.id) ?? []));
}

/** A stored material without its documents, or null. */
export async function findMaterial(db: Knex, id: string): Promise<StoredMaterial | null> {
  const row: MaterialRow | undefined = await db('materials')
    .select(...COLUMNS)
    .where('id', id)
    .first();
  return row ? fromRow(row, []) : null;
}

/** Adds a material. */
export async function addMaterial(db: Knex, material: Material, supplier: string | null): Promise<void> {
  const { id, name, kind } = material;
  await db('materials').insert({ id, name, kind, supplier, body: JSON.stringify(material) });
}

/** Changes a material to a revision; its documents stay. */
export async function putMaterial(
  db: Knex,
  material: Material,
  supplier: string | null,
  revision: number,
): Promise<void> {
  const { id, name, kind } = material;
  await db('materials')
    .where('id', id)
    .update({ name, kind, supplier, revision, body: JSON.stringify(material) });
}

/** Removes a material with its documents and lots; true where there was one. */
export async function removeMaterial(db: Knex, id: string): Promise<boolean> {
  return (await db('materials').where('id', id).delete()) > 0;
}

/** Adds a mix; what it holds is reckoned from its parts whenever it is read. */
export async function addMix(db: Knex, id: string, name: string, parts: MixPart[]): Promise<void> {
  const body: Material = { id, name, kind: 'other' };
  await db('materials').insert({
    id,
    name,
    kind: 'mix',
    supplier: null,
    body: JSON.stringify(body),
    mix: JSON.stringify(parts),
  });
}

/** Changes a mix to a revision. */
export async function putMix(
  db: Knex,
  { material, mix, revision }: Pick<StoredMaterial, 'material' | 'mix' | 'revision'>,
): Promise<void> {
  const { id, name } = material;
  await db('materials')
    .where('id', id)
    .update({ name, revision, body: JSON.stringify(material), mix: JSON.stringify(mix) });
}

/** Adds a document. An older one is never overwritten: each has an id of its own. */
export async function addDocument(db: Knex, document: MaterialDocument): Promise<void> {
  const { id, materialId, type, number, edition, issuedOn } = document;
  await db('documents').insert({
    id,
    material_id: materialId,
    type,
    number,
    edition,
    issued_on: issuedOn,
    body: JSON.stringify(document),
  });
}

/** Takes a document off the file again; true where there was one. */
export async function removeDocument(db: Knex, materialId: string, id: string): Promise<boolean> {
  return (await db('documents').where({ id, material_id: materialId }).delete()) > 0;
}
