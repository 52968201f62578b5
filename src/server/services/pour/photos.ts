/** Photographs kept with a batch: told by their first bytes, bounded in size, given out as what they are. */
import { randomUUID } from 'node:crypto';
import type { House } from '../../house';
import { fault } from '../../http';
import { findBatch } from '../../repositories/batches';
import { addPhoto, photoBytes, removePhoto, photosOf, type BatchPhoto } from '../../repositories/photos';
import { writing } from '../../store/writing';

const LARGEST_BYTES = 4 * 1024 * 1024;
const MOST_PHOTOS = 60;
const LONGEST_NOTE = 300;

const startsWith = (bytes: Uint8Array, ...marks: number[]) => marks.every((mark, at) => bytes[at] === mark);
const letters = (bytes: Uint8Array, from: number, to: number) =>
  String.fromCharCode(...bytes.slice(from, to));

/** What a picture is, by its first bytes; null for what is none of the three. */
function mimeOf(bytes: Uint8Array): string | null {
  if (startsWith(bytes, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (startsWith(bytes, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  return letters(bytes, 0, 4) === 'RIFF' && letters(bytes, 8, 12) === 'WEBP' ? 'image/webp' : null;
}

const unknownPhoto = () => fault(404, 'unknown-photo', 'There is no such photograph of this batch.', 'photo');

async function requireKnown({ db }: House, id: string): Promise<void> {
  if (!(await findBatch(db, id))) throw fault(404, 'unknown-batch', `There is no batch "${id}".`, 'id');
}

/** The photographs of a batch, oldest first; 404 where there is no such batch. */
export async function listPhotos(house: House, id: string): Promise<BatchPhoto[]> {
  await requireKnown(house, id);
  return photosOf(house.db, id);
}

/** Keeps a photograph; 404 and 422 as faults. */
export async function keepPhoto(
  house: House,
  id: string,
  note: string,
  bytes: Uint8Array,
): Promise<BatchPhoto> {
  await requireKnown(house, id);
  const mime = mimeOf(bytes);
  if (!mime)
    throw fault(422, 'not-a-picture', 'This is no JPEG, PNG or WebP. Take another picture.', 'photo');
  if (bytes.byteLength > LARGEST_BYTES)
    throw fault(422, 'too-large', 'This photograph is over 4 MB. Make it smaller first.', 'photo');
  if (note.length > LONGEST_NOTE || /\p{C}/u.test(note))
    throw fault(422, 'not-text', `Give a note of at most ${LONGEST_NOTE} letters.`, 'note');
  return writing(house.db, async (trx) => {
    if ((await photosOf(trx, id)).length >= MOST_PHOTOS)
      throw fault(422, 'too-many', `A batch keeps at most ${MOST_PHOTOS} photographs.`, 'photo');
    const photo: BatchPhoto = { id: randomUUID(), at: house.now, note };
    await addPhoto(trx, id, photo, mime, bytes);
    return photo;
  });
}

/** Takes a photograph away; 404 where there is none. */
export async function dropPhoto({ db }: House, batch: string, id: string): Promise<void> {
  if (!(await writing(db, (trx) => removePhoto(trx, batch, id)))) throw unknownPhoto();
}

/** A photograph's bytes; 404 where there is none. */
export async function photoOf(
  house: House,
  batch: string,
  id: string,
): Promise<{ mime: string; bytes: Uint8Array }> {
  const photo = await photoBytes(house.db, batch, id);
  if (!photo) throw unknownPhoto();
  return photo;
}
