/** The cupboard: stored materials and the documents on file for them. */
import type { Knex } from 'knex';
import type { Constituent, Material } from '../../core/formula/types';

/** A certificate or an allergen declaration as it was taken in. */
export interface MaterialDocument {
  id: string;
  materialId: string;
  type: 'certificate' | 'allergens';
  number: string;
  /** Edition of the standard a certificate follows, e.g. "51st". */
  edition: string | null;
  issuedOn: string;
  issuer: string;
  /** Maximum in the finished bar for the category that covers bar soap, percent. */
  maxPct?: number;
  category?: string;
  /** What the certificate says of single constituents in the finished bar, percent. */
  limits?: { constituent: string; maxPct: number }[];
  vanillinPct?: number;
  flashPointC?: number;
  constituents?: Constituent[];
}

export interface StoredMaterial {
  material: Material;
  supplier: string | null;
  documents: MaterialDocument[];
}

interface MaterialRow {
  id: string;
  supplier: string | null;
  body: string;
}

interface DocumentRow {
  body: string;
}

function fromRow(row: MaterialRow, documents: MaterialDocument[]): StoredMaterial {
  return { material: JSON.parse(row.body) as Material, supplier: row.supplier, documents };
}

/** All stored materials with their documents, newest document first. */
export async function allMaterials(db: Knex): Promise<StoredMaterial[]> {
  const rows: MaterialRow[] = await db('materials').select('id', 'supplier', 'body').orderBy('name');
  const documentRows: DocumentRow[] = await db('documents').select('body').orderBy('issued_on', 'desc');
  const byMaterial = new Map<string, MaterialDocument[]>();
  for (const { body } of documentRows) {
    const document = JSON.parse(body) as MaterialDocument;
    byMaterial.set(document.materialId, [...(byMaterial.get(document.materialId) ?? []), document]);
  }
  return rows.map((row) => fromRow(row, byMaterial.get(row.id) ?? []));
}

/** Adds or replaces a material; its documents stay. */
export async function putMaterial(db: Knex, material: Material, supplier: string | null): Promise<void> {
  const { id, name, kind } = material;
  await db('materials')
    .insert({ id, name, kind, supplier, body: JSON.stringify(material) })
    .onConflict('id')
    .merge();
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
