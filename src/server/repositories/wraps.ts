/** What goes on each bar, the maker's picture, and issued labels. */
import type { Knex } from 'knex';
import type { School, Verdict } from '../../core/formula/answer';
import type { Formula, Market } from '../../core/formula/types';
import type { LabelContent, Words } from '../../core/labels/content';
import type { LabelFormat } from '../../core/labels/formats';
import type { Face } from '../../core/labels/layout';
import type { Regime } from '../../core/labels/standing';

/** A bar's wrap: its words, looks and sizes; one for all markets, with a school and a shape for each. */
export interface Wrap {
  description: string;
  back: string;
  identity: Words;
  use: Words;
  cautions: Words;
  markets: Partial<Record<Market, { school: School; format: LabelFormat }>>;
  look: { paper: string; ink: string; nameFace: Face; logo: boolean };
  barcode: 'none' | 'gtin' | 'batch';
  gtin: string;
  /** Weights of single cured bars, grams. */
  weighedG: number[];
  netMassG: number | null;
  batchCode: string;
  durability: { months: number; endsOn: string | null } | null;
  /** Items of the checklists that the maker ticked: "EU file". */
  ticked: string[];
}

export interface StoredWrap {
  revision: number;
  savedAt: string;
  wrap: Wrap;
}

/** A label as it was issued. Nothing of it changes afterwards. */
export interface IssuedLabel {
  id: string;
  productId: string;
  market: Market;
  issuedOn: string;
  product: string;
  content: LabelContent;
  school: School;
  regime: Regime;
  format: LabelFormat;
  netMassG: number;
  batchCode: string;
  formula: Formula;
  formulaRevision: number;
  /** The papers that counted for the materials in it. */
  papers: { material: string; number: string; issuer: string; issuedOn: string }[];
  rulebookEdition: string;
  verdict: Verdict;
}

interface WrapRow {
  revision: number;
  saved_at: string;
  body: string;
}

/** A bar's wrap, or null before any was saved. */
export async function findWrap(db: Knex, productId: string): Promise<StoredWrap | null> {
  const row: WrapRow | undefined = await db('wraps').where('product_id', productId).first();
  return row ? { revision: row.revision, savedAt: row.saved_at, wrap: JSON.parse(row.body) as Wrap } : null;
}

/** Saves a wrap made from a revision (0 before the first); the newer one comes back where it is stale. */
export async function saveWrap(
  db: Knex,
  productId: string,
  fromRevision: number,
  wrap: Wrap,
  savedAt: string,
): Promise<{ saved: StoredWrap } | { stale: StoredWrap }> {
  return db.transaction(async (trx) => {
    const known = await findWrap(trx, productId);
    if (known && known.revision !== fromRevision) return { stale: known };
    const revision = fromRevision + 1;
    await trx('wraps')
      .insert({ product_id: productId, revision, saved_at: savedAt, body: JSON.stringify(wrap) })
      .onConflict('product_id')
      .merge();
    return { saved: { revision, savedAt, wrap } };
  });
}

/** Freezes a label with its PDF. */
export async function addIssued(db: Knex, label: IssuedLabel, pdf: Uint8Array): Promise<void> {
  const { id, productId, market, issuedOn } = label;
  const body = JSON.stringify(label);
  await db('issued_labels').insert({
    id,
    product_id: productId,
    market,
    issued_on: issuedOn,
    body,
    pdf: Buffer.from(pdf),
  });
}

/** The labels issued for a bar, newest first. */
export async function issuedLabels(db: Knex, productId: string): Promise<IssuedLabel[]> {
  const rows: { body: string }[] = await db('issued_labels')
    .where('product_id', productId)
    .orderBy('rowid', 'desc')
    .select('body');
  return rows.map(({ body }) => JSON.parse(body) as IssuedLabel);
}

/** Whether a label of that id was issued. */
export async function isIssued(db: Knex, id: string): Promise<boolean> {
  return (await db('issued_labels').where('id', id).first('id')) !== undefined;
}

/** The PDF of an issued label, to the byte as it was; null where there is none. */
export async function issuedPdf(db: Knex, id: string): Promise<Uint8Array | null> {
  const row: { pdf: Uint8Array } | undefined = await db('issued_labels').where('id', id).first('pdf');
  return row?.pdf ?? null;
}

export interface Logo {
  mime: 'image/png' | 'image/svg+xml';
  widthOverHeight: number;
  bytes: Uint8Array;
}

/** There is one picture: the maker's. */
const LOGO_ID = 'maker';

/** The maker's picture, or null. */
export async function findLogo(db: Knex): Promise<Logo | null> {
  const row: { mime: Logo['mime']; width_over_height: number; bytes: Uint8Array } | undefined = await db(
    'logos',
  )
    .where('id', LOGO_ID)
    .first();
  return row ? { mime: row.mime, widthOverHeight: row.width_over_height, bytes: row.bytes } : null;
}

/** Sets the maker's picture, or takes it away with null. */
export async function putLogo(db: Knex, logo: Logo | null): Promise<void> {
  if (!logo) {
    await db('logos').where('id', LOGO_ID).delete();
    return;
  }
  const { mime, widthOverHeight, bytes } = logo;
  await db('logos')
    .insert({ id: LOGO_ID, mime, width_over_height: widthOverHeight, bytes: Buffer.from(bytes) })
    .onConflict('id')
    .merge();
}
