/**
 * What did not reach the file, kept in this browser until it does: an entry for each address and window, in IndexedDB. A
 * window drops its own, so that what one saves takes nothing from another.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { byMoment } from '../core/quantities/day';
import { makeKey } from './api';
import type { Aside, LaidAside } from './save-queue';

interface Schema extends DBSchema {
  unsaved: { key: string; value: LaidAside<unknown> };
}

const NAME = 'proportia';
let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>(NAME, 1, { upgrade: (db) => void db.createObjectStore('unsaved') });
  return opened;
}

/** This window, from the time it was loaded; a copied tab is another one. */
const WINDOW = makeKey();
const SEPARATOR = '\n';

/** The place aside of this window for an address. */
export function asideFor<T>(url: string): Aside<T> {
  const key = `${url}${SEPARATOR}${WINDOW}`;
  return {
    put: async (entry) => void (await (await database()).put('unsaved', entry, key)),
    drop: async () => void (await (await database()).delete('unsaved', key)),
  };
}

/** What an earlier visit laid aside, and how to let it go. */
export interface Found<T> extends LaidAside<T> {
  drop: () => Promise<void>;
}

/** The newest that other windows left aside for an address, or null; also null where the browser keeps nothing. */
export async function laidAside<T>(url: string): Promise<Found<T> | null> {
  try {
    const db = await database();
    const here = (key: string) => key === url || key.startsWith(`${url}${SEPARATOR}`);
    const keys = (await db.getAllKeys('unsaved')).filter((key) => here(key) && !key.endsWith(WINDOW));
    const all = await Promise.all(
      keys.map(async (key) => ({ key, entry: (await db.get('unsaved', key)) as LaidAside<T> | undefined })),
    );
    const [newest] = all
      .flatMap(({ key, entry }) => (entry ? { key, entry } : []))
      .sort((a, b) => byMoment(b.entry.at, a.entry.at));
    return newest ? { ...newest.entry, drop: () => db.delete('unsaved', newest.key) } : null;
  } catch {
    return null;
  }
}
