/** What did not reach the file, kept in this browser until it does: one entry an address, in IndexedDB. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
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

/** The place aside for one address. */
export function asideFor<T>(url: string): Aside<T> {
  return {
    put: async (entry) => void (await (await database()).put('unsaved', entry, url)),
    drop: async () => void (await (await database()).delete('unsaved', url)),
  };
}

/** What lies aside for an address, or null; also null where the browser keeps nothing. */
export async function laidAside<T>(url: string): Promise<LaidAside<T> | null> {
  try {
    return ((await (await database()).get('unsaved', url)) as LaidAside<T> | undefined) ?? null;
  } catch {
    return null;
  }
}
