/** Settings that are changed as a whole, each made from the revision that was seen. */
import type { House } from '../../house';
import { findSetting, putSetting, type Setting } from '../../repositories/settings';
import { writing } from '../../store/writing';

type Key = Parameters<typeof findSetting>[1];
type Value<K extends Key> = Awaited<ReturnType<typeof findSetting<K>>>['value'];

/** A setting with its revision. */
export function settingOf<K extends Key>({ db }: House, key: K): Promise<Setting<Value<K>>> {
  return findSetting(db, key);
}

/** Changes a setting; nothing is written, and the newer one comes back, where it was changed in between. */
export function changeSetting<K extends Key>(
  { db }: House,
  key: K,
  revision: number,
  value: Value<K>,
): Promise<{ setting: Setting<Value<K>>; stale: boolean }> {
  return writing(db, async (trx) => {
    const known = await findSetting(trx, key);
    if (known.revision !== revision) return { setting: known, stale: true };
    return { setting: await putSetting(trx, key, value), stale: false };
  });
}
