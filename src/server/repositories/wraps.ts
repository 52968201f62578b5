/** What goes on each bar, the maker's picture, and issued labels. */
import type { Knex } from 'knex';
import type { IssuedLabel, StoredWrap, Wrap } from '../../core/records/wrap';

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

/** Keeps a wrap. */
export async function putWrap(
  trx: Knex,
  productId: string,
  { revision, savedAt, wrap }: StoredWrap,
): Promise<void> {
  await trx('wraps')
    .insert({ product_id: productId, revision, saved_at: savedAt, body: JSON.stringify(wrap) })
    .onConflict('product_id')
    .merge();
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

const labelsFrom = (rows: readonly { body: string }[]) =>
  rows.map(({ body }) => JSON.parse(body) as IssuedLabel);

/** Labels issued for a bar, newest first: so many, from a place on. */
export async function issuedLabels(
  db: Knex,
  productId: string,
  { from, most }: { from: number; most: number },
): Promise<IssuedLabel[]> {
  return labelsFrom(
    await db('issued_labels')
      .where('product_id', productId)
      .orderBy('rowid', 'desc')
      .offset(from)
      .limit(most)
      .select('body'),
  );
}

const CODE = "json_extract(body, '$.batchCode')";

/** A label that was issued for a batch. */
export interface BatchLabel extends Pick<IssuedLabel, 'id' | 'market' | 'issuedOn' | 'netMassG'> {
  code: string;
}

/** The labels issued for batches of some bars, by their codes, newest first; only of these codes. */
export async function labelsOfBatches(
  db: Knex,
  products: readonly string[],
  codes: readonly string[],
): Promise<BatchLabel[]> {
  return db('issued_labels')
    .whereIn('product_id', products)
    .whereIn(db.raw(CODE) as never, codes)
    .orderBy('rowid', 'desc')
    .select('id', 'market', {
      code: db.raw(CODE),
      issuedOn: 'issued_on',
      netMassG: db.raw("json_extract(body, '$.netMassG')"),
    });
}

/** Which of these codes have a label issued for them. */
export async function labelledCodes(
  db: Knex,
  productId: string,
  codes: readonly string[],
): Promise<ReadonlySet<string>> {
  const rows: { code: string }[] = await db('issued_labels')
    .where('product_id', productId)
    .whereIn(db.raw(CODE) as never, codes)
    .distinct(db.raw(`${CODE} as code`));
  return new Set(rows.map((row) => row.code));
}

/** How many labels were issued for a bar. */
export async function issuedCount(db: Knex, productId: string): Promise<number> {
  const [row] = await db('issued_labels')
    .where('product_id', productId)
    .count<{ count: number }[]>({ count: '*' });
  return row!.count;
}

/** An issued label, or null. */
export async function findIssued(db: Knex, id: string): Promise<IssuedLabel | null> {
  const row: { body: string } | undefined = await db('issued_labels').where('id', id).select('body').first();
  return row ? (JSON.parse(row.body) as IssuedLabel) : null;
}

/** How many labels were issued for each bar that has any. */
export async function issuedCounts(db: Knex): Promise<ReadonlyMap<string, number>> {
  const rows: { product_id: string; count: number }[] = await db('issued_labels')
    .select('product_id')
    .count({ count: '*' })
    .groupBy('product_id');
  return new Map(rows.map(({ product_id, count }) => [product_id, count]));
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
