/** Looking at a change before it is accepted: in the background, with progress, and nothing written but the look. */
import { noteFault } from '../../log';
import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { Knex } from 'knex';
import type { Change } from '../../../core/change/types';
import type { ChangeEntry, ChangeView } from '../../../core/records/watch';
import type { House } from '../../house';
import { fault } from '../../http';
import { JobEnded } from '../../jobs/ended';
import { onThread } from '../../jobs/threads';
import {
  addChange,
  allChanges,
  barsStamp,
  changeResult,
  endChange,
  endOpenChanges,
  findChange,
  type FoundParts,
  type StoredChange,
} from '../../repositories/changes';
import type { ChangeChunk } from '../../jobs/change-job';
import { sharedSetting } from '../../store/shared';
import type { StoreSnapshot } from '../../store/snapshot';
import { storesOf } from './change-store';
import { placesOf, readPlaces } from '../../store/places';
import { changeWords } from './change-words';

/** Subjects sent to a thread at once, and chunks under way. */
const CHUNK = 150;
const LANES = 3;
const LIMIT_MS = 60_000;
/** Changes shown in a list, and looks under way at a time. */
const MOST_LISTED = 200;
const MOST_RUNNING = 4;

interface Running {
  done: number;
  of: number;
  stop: AbortController;
  news: EventEmitter;
}

/** Looks under way in this process. */
const running = new Map<string, Running>();
/** Databases whose unfinished looks of an earlier run were ended. */
const swept = new WeakSet<Knex>();

async function sweep(db: Knex): Promise<void> {
  if (swept.has(db)) return;
  swept.add(db);
  if (running.size === 0) await endOpenChanges(db);
}

/** Names the store that a preview reads: rules, papers and bars. */
export async function stampOf({ db }: Pick<House, 'db'>, snapshot: StoreSnapshot): Promise<string> {
  return `${snapshot.id} | ${await barsStamp(db)}`;
}

const unknown = (id: string) => fault(404, 'unknown-change', `There is no change "${id}".`, 'id');

/** A change that was looked at; 404 where there is none. */
export async function requireChange({ db }: House, id: string): Promise<StoredChange> {
  await sweep(db);
  const found = await findChange(db, id);
  if (!found) throw unknown(id);
  return found;
}

/** Begins to look at a change; answers its id at once. */
export async function previewChange(house: House, change: Change): Promise<{ id: string }> {
  await sweep(house.db);
  if (running.size >= MOST_RUNNING)
    throw fault(429, 'too-much', 'Other changes are being looked at. Wait for them, or cancel one.');
  const stores = await storesOf(house, change);
  const id = randomUUID();
  const state: Running = { done: 0, of: 0, stop: new AbortController(), news: new EventEmitter() };
  await addChange(house.db, {
    id,
    at: house.now,
    change,
    words: await changeWords(house, change),
    state: 'running',
    decision: null,
    touched: null,
    worse: null,
    stamp: await stampOf(house, stores.before),
  });
  running.set(id, state);
  void look(house, id, change, stores, state);
  return { id };
}

async function look(
  house: House,
  id: string,
  change: Change,
  stores: { before: StoreSnapshot; after: StoreSnapshot },
  state: Running,
): Promise<void> {
  try {
    const found = await effectsOf(house, change, stores, state);
    await endChange(house.db, id, 'done', found);
  } catch (error) {
    const isCancelled = state.stop.signal.aborted;
    if (!isCancelled && !(error instanceof JobEnded)) noteFault('change', error);
    await endChange(house.db, id, isCancelled ? 'cancelled' : 'failed').catch((error: unknown) =>
      noteFault('change', error),
    );
  } finally {
    running.delete(id);
    state.news.emit('news');
  }
}

/** The day that the after side is looked at. */
const dayAfter = (change: Change, { onDate }: StoreSnapshot) =>
  change.kind === 'day' ? change.onDate : onDate;

/** What rows of a kind of change mean beyond their two assessments. */
function viewOf(change: Change): ChangeChunk['view'] {
  if (change.kind === 'market') return 'newMarket';
  if (change.kind !== 'lot') return null;
  return change.quarantine === null ? 'freed' : 'doubted';
}

async function effectsOf(
  house: House,
  change: Change,
  { before, after }: { before: StoreSnapshot; after: StoreSnapshot },
  state: Running,
): Promise<FoundParts> {
  const places = await placesOf(house, change, () => state.news.emit('news'));
  const { signal } = state.stop;
  state.of = places.length;
  state.news.emit('news');
  const plain = {
    before: { setting: sharedSetting(before), onDate: before.onDate },
    after: { setting: sharedSetting(after), onDate: dayAfter(change, after) },
    swap: change.kind === 'swap' ? change : null,
    view: viewOf(change),
  };
  const found: FoundParts = { parts: [], touched: 0, worse: 0, unchanged: 0 };
  let next = 0;
  const lane = async () => {
    while (next < places.length) {
      signal.throwIfAborted();
      const from = next;
      next += CHUNK;
      const chunk = places.slice(from, from + CHUNK);
      const subjects = await readPlaces(house.db, chunk);
      const options = { signal, ahead: true, limitMs: LIMIT_MS };
      const told = await onThread('effectsChunk', { ...plain, subjects }, options);
      if (told.touched > 0) found.parts.push(told.effectsText);
      found.touched += told.touched;
      found.worse += told.worse;
      found.unchanged += told.unchanged;
      state.done += chunk.length;
      state.news.emit('news');
    }
  };
  await Promise.all(Array.from({ length: LANES }, lane));
  signal.throwIfAborted();
  return found;
}

const entryOf = ({ stamp: _, ...entry }: StoredChange): ChangeEntry => entry;

/** How far a look is. */
function progressOf({ id, touched }: StoredChange): { done: number; of: number } {
  const state = running.get(id);
  return { done: state?.done ?? touched ?? 0, of: state?.of ?? touched ?? 0 };
}

/** A change with how far it is, and its effects once they are there. */
export async function viewChange(house: House, id: string): Promise<ChangeView> {
  const stored = await requireChange(house, id);
  const found = stored.state === 'done' ? await changeResult(house.db, id) : null;
  return {
    ...entryOf(stored),
    ...progressOf(stored),
    ...(found ? { effects: found.effects, unchanged: found.unchanged } : {}),
    ...(stored.state === 'failed' ? { message: 'The look was ended. Look again.' } : {}),
  };
}

/** Changes that were looked at, newest first. */
export async function listChanges({ db }: House): Promise<ChangeEntry[]> {
  await sweep(db);
  return (await allChanges(db, MOST_LISTED)).map(entryOf);
}

/** Stops looking; nothing happens where it has ended already. */
export async function cancelChange(house: House, id: string): Promise<ChangeView> {
  const stored = await requireChange(house, id);
  const state = running.get(id);
  if (stored.state === 'running' && state) {
    state.stop.abort();
    await endChange(house.db, id, 'cancelled');
  }
  return viewChange(house, id);
}

/** How far a look is is told at least so often, also where nothing was finished since. */
const TELL_MS = 400;

/** Tells how far a look is until it has ended; answers how to stop listening. */
export function followChange(
  house: House,
  id: string,
  send: (news: { state: string; done: number; of: number }) => void,
): () => void {
  const tell = () =>
    void requireChange(house, id)
      .then((stored) => send({ state: stored.state, ...progressOf(stored) }))
      .catch((error: unknown) => noteFault('change', error));
  const state = running.get(id);
  tell();
  if (!state) return () => undefined;
  let timer: NodeJS.Timeout;
  const stop = () => {
    clearTimeout(timer);
    state.news.off('news', hear);
  };
  const hear = () => {
    clearTimeout(timer);
    if (!running.has(id)) {
      stop();
      return tell();
    }
    timer = setTimeout(hear, TELL_MS).unref();
    send({ state: 'running', done: state.done, of: state.of });
  };
  state.news.on('news', hear);
  timer = setTimeout(hear, TELL_MS).unref();
  return stop;
}
