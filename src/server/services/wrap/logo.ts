/** The maker's picture: looked over and written anew on a thread before it is kept. */
import type { House } from '../../house';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { findLogo, putLogo, type Logo } from '../../repositories/wraps';
import { writing } from '../../store/writing';
import { told } from '../../jobs/told';

/** The picture on file, or null. */
export function currentLogo({ db }: House): Promise<Logo | null> {
  return findLogo(db);
}

/** Keeps a picture from its bytes, or takes it away with null; 422 where it cannot be drawn. */
export async function keepLogo(
  { db }: House,
  bytes: Uint8Array | null,
): Promise<{ widthOverHeight: number }> {
  if (!bytes) {
    await writing(db, (trx) => putLogo(trx, null));
    return { widthOverHeight: 1 };
  }
  const read = await told(onThread('readLogo', bytes), 'logo');
  if ('refused' in read) throw fault(422, 'not-a-picture', read.refused, 'logo');
  await writing(db, (trx) => putLogo(trx, read.logo));
  return { widthOverHeight: read.logo.widthOverHeight };
}
