/**
 * What a device of the bench keeps in its browser until it is on file: events by batch, one entry each, so that two
 * windows never take each other's away; and what the scale held for each line. In IndexedDB, which has room.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { BatchEvent } from '../core/batch/types';
import { jotDown, jotted, strikeOut } from './bench-journal';
import type { SetAside } from './event-queue';

interface KeptEvent {
  batch: string;
  id: string;
  /** Order of writing. */
  place: number;
  event: BatchEvent;
  aside: Omit<SetAside, 'event'> | null;
}

interface KeptScale {
  batch: string;
  line: string;
  weighing: unknown;
}

/** What a batch was known to hold, and when the application last said so. */
export interface KnownEvents {
  batch: string;
  events: BatchEvent[];
  at: string;
}

/** A photograph that is not on file yet. */
export interface KeptPhoto {
  id: string;
  batch: string;
  note: string;
  blob: Blob;
}

interface Schema extends DBSchema {
  events: { key: [string, string]; value: KeptEvent; indexes: { batch: string } };
  scales: { key: [string, string]; value: KeptScale; indexes: { batch: string } };
  known: { key: string; value: KnownEvents };
  photos: { key: string; value: KeptPhoto; indexes: { batch: string } };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('proportia bench', 3, {
    upgrade: (db, before) => {
      if (before < 3) db.createObjectStore('photos', { keyPath: 'id' }).createIndex('batch', 'batch');
      if (before < 2) db.createObjectStore('known', { keyPath: 'batch' });
      if (before >= 1) return;
      db.createObjectStore('events', { keyPath: ['batch', 'id'] }).createIndex('batch', 'batch');
      db.createObjectStore('scales', { keyPath: ['batch', 'line'] }).createIndex('batch', 'batch');
    },
  });
  return opened;
}

/** What an earlier visit left: events that still wait, in their order, and those set aside. */
export interface LeftEvents {
  waiting: BatchEvent[];
  aside: SetAside[];
}

/** Rows of the database; a browser that keeps nothing has none. */
async function stored(batch: string): Promise<KeptEvent[]> {
  try {
    return await (await database()).getAllFromIndex('events', 'batch', batch);
  } catch {
    return [];
  }
}

/** What is kept of a batch's events; a browser that keeps nothing answers none. */
export async function keptEvents(batch: string): Promise<LeftEvents> {
  // Asked first: what is struck out meanwhile stands in the database by then.
  const ahead = jotted<KeptEvent>(batch);
  const rows = [...(await stored(batch)), ...ahead];
  const all = [...new Map(rows.map((row) => [row.id, row])).values()].sort((a, b) => a.place - b.place);
  return {
    waiting: all.flatMap(({ event, aside }) => (aside ? [] : [event])),
    aside: all.flatMap(({ event, aside }) => (aside ? [{ event, ...aside }] : [])),
  };
}

/** Batches of which something is kept here: not on file yet, or set aside. */
export async function keptBatches(): Promise<string[]> {
  const ahead = jotted<KeptEvent>().map(({ batch }) => batch);
  try {
    const keys = await (await database()).getAllKeys('events');
    return [...new Set([...keys.map(([batch]) => batch), ...ahead])];
  } catch {
    return [...new Set(ahead)];
  }
}

/** Keeps events as waiting, or as set aside, and lets others go: at once, then in the database. */
export async function keepEvents(
  batch: string,
  { waiting, aside }: LeftEvents,
  gone: readonly string[],
): Promise<void> {
  const rows: KeptEvent[] = [
    ...waiting.map((event, place) => ({ batch, id: event.id, place, event, aside: null })),
    ...aside.map(({ event, ...why }, place) => ({ batch, id: event.id, place, event, aside: why })),
  ];
  jotDown(rows);
  try {
    const transaction = (await database()).transaction('events', 'readwrite');
    await Promise.all([
      ...gone.map((id) => transaction.store.delete([batch, id])),
      ...rows.map((row) => transaction.store.put(row)),
      transaction.done,
    ]);
    strikeOut(rows);
  } finally {
    strikeOut(gone.map((id) => ({ batch, id })));
  }
}

/** What the scale held for a line of a batch, or null. */
export async function keptScale<T>(batch: string, line: string): Promise<T | null> {
  try {
    return ((await (await database()).get('scales', [batch, line]))?.weighing as T | undefined) ?? null;
  } catch {
    return null;
  }
}

/** Keeps what the scale holds for a line; a browser that keeps nothing goes without. */
export async function keepScale(batch: string, line: string, weighing: unknown): Promise<void> {
  try {
    await (await database()).put('scales', { batch, line, weighing });
  } catch {
    // The display goes on; only a reload begins anew.
  }
}

/** Lets what the scale held for a batch go, once it is poured. */
export async function dropScales(batch: string): Promise<void> {
  try {
    const transaction = (await database()).transaction('scales', 'readwrite');
    const keys = await transaction.store.index('batch').getAllKeys(batch);
    await Promise.all([...keys.map((key) => transaction.store.delete(key)), transaction.done]);
  } catch {
    // Nothing was kept.
  }
}

/** Keeps what is known of a batch, for a reload without the network; a browser that keeps nothing goes without. */
export async function keepKnown(known: KnownEvents): Promise<void> {
  try {
    await (await database()).put('known', known);
  } catch {
    // The page begins from what it was loaded with.
  }
}

/** What was known of a batch, or null. */
export async function keptKnown(batch: string): Promise<KnownEvents | null> {
  try {
    return (await (await database()).get('known', batch)) ?? null;
  } catch {
    return null;
  }
}

/** Keeps a photograph until the house has it. Throws where this browser keeps nothing: it would be lost. */
export async function keepPhoto(photo: KeptPhoto): Promise<void> {
  await (await database()).put('photos', photo);
}

/** Photographs of a batch that wait here. */
export async function keptPhotos(batch: string): Promise<KeptPhoto[]> {
  try {
    return await (await database()).getAllFromIndex('photos', 'batch', batch);
  } catch {
    return [];
  }
}

/** Lets a photograph go once it is on file. */
export async function dropPhoto(id: string): Promise<void> {
  await (await database()).delete('photos', id);
}
