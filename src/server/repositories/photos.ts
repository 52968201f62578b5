/** Photographs kept with batches. */
import type { Knex } from 'knex';

export interface BatchPhoto {
  id: string;
  at: string;
  note: string;
}

interface PhotoRow extends BatchPhoto {
  batch_id: string;
  mime: string;
  bytes: Uint8Array;
}

/** The photographs of a batch, oldest first, without their bytes. */
export async function photosOf(db: Knex, batch: string): Promise<BatchPhoto[]> {
  return db<PhotoRow>('batch_photos').where('batch_id', batch).orderBy('at').select('id', 'at', 'note');
}

/** A photograph's bytes with their type, or null. */
export async function photoBytes(
  db: Knex,
  batch: string,
  id: string,
): Promise<{ mime: string; bytes: Uint8Array } | null> {
  const row = await db<PhotoRow>('batch_photos')
    .where({ id, batch_id: batch })
    .select('mime', 'bytes')
    .first();
  return row ? { mime: row.mime, bytes: row.bytes } : null;
}

/** Takes a photograph away; true where there was one. */
export async function removePhoto(trx: Knex, batch: string, id: string): Promise<boolean> {
  return (await trx('batch_photos').where({ id, batch_id: batch }).delete()) > 0;
}

/** Adds a photograph. */
export async function addPhoto(
  trx: Knex,
  batch: string,
  photo: BatchPhoto,
  mime: string,
  bytes: Uint8Array,
): Promise<void> {
  await trx('batch_photos').insert({ ...photo, batch_id: batch, mime, bytes: Buffer.from(bytes) });
}
