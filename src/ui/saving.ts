/** Autosave on a screen: the queue, what lies aside from an earlier visit, and what is sent when the page is left. */
import { useCallback, useEffect, useState } from 'react';
import { send } from './api';
import { useLatest } from './latest';
import { asideFor, laidAside, type Found } from './aside';
import { SaveQueue, type LaidAside, type OnFile, type SaveOutcome, type SaveState } from './save-queue';

export type { OnFile, SaveState } from './save-queue';

export interface Saving<T> {
  save: SaveState<T>;
  revision: number;
  /** Sends what is unsaved now; resolves true once everything is on file. */
  flush: () => Promise<boolean>;
  /** The revision on file, also right after a flush. */
  currentRevision: () => number;
  /** The same value is on file under a new revision, because a version of it was kept. */
  moveTo: (revision: number) => void;
  /** After a stale save: carries on from the newer revision, with whatever is on the table. */
  carryOnFrom: (newer: OnFile<T>) => void;
  /** What an earlier visit left unsaved; null where nothing, or once it was taken or left. */
  aside: LaidAside<T> | null;
  leaveAside: () => void;
}

export interface SavingOptions<T> {
  url: string;
  loaded: OnFile<T>;
  value: T;
  /** Whether what is on the table may be saved. */
  savable: boolean;
  /** The body that saves a value made from a revision. */
  write: (revision: number, value: T) => unknown;
  /** What the answer says is on file now, or which newer state stands in the way. */
  read: (body: unknown) => { saved: OnFile<T> } | { stale: OnFile<T> };
}

/** Bodies up to this many bytes may be sent while the page goes (Fetch standard: 64 KiB for all of them). */
const LARGEST_KEPT_ALIVE = 60_000;
const BAD_REQUEST = 400;
const SERVER_FAULT = 500;
const TOO_MANY = 429;

type Traffic<T> = Pick<SavingOptions<T>, 'url' | 'write' | 'read'>;

async function sendValue<T>(
  { url, write, read }: Traffic<T>,
  revision: number,
  value: T,
): Promise<SaveOutcome<T>> {
  const answer = await send<unknown>('PUT', url, write(revision, value));
  if (answer.ok) {
    const told = read(answer.body);
    return 'stale' in told
      ? { outcome: 'stale', newer: told.stale }
      : { outcome: 'saved', saved: told.saved };
  }
  const isRefused =
    answer.status >= BAD_REQUEST && answer.status < SERVER_FAULT && answer.status !== TOO_MANY;
  const { message } = answer.faults[0]!;
  if (isRefused) return { outcome: 'refused', message };
  return { outcome: 'silent', message: answer.status === 0 ? null : message };
}

/** The queue of a screen, made once. */
function useQueue<T>(traffic: Traffic<T>, loaded: OnFile<T>): SaveQueue<T> {
  const [, redraw] = useState(0);
  const latest = useLatest(traffic);
  const [queue] = useState(
    () =>
      new SaveQueue<T>({
        loaded,
        send: (revision, value) => sendValue(latest.current, revision, value),
        aside: asideFor<T>(traffic.url),
        after: (ms, call) => {
          const timer = setTimeout(call, ms);
          return () => clearTimeout(timer);
        },
        now: () => new Date().toISOString(),
        onChange: () => redraw((count) => count + 1),
      }),
  );
  useEffect(() => () => queue.close(), [queue]);
  return queue;
}

/** A page that is left sends its last change on the way out; it lies aside as well, should that not arrive. */
function useLeaving<T>(queue: SaveQueue<T>, { url, write }: Traffic<T>): void {
  useEffect(() => {
    const onLeave = () => {
      const last = queue.leave();
      if (!last) return;
      const body = JSON.stringify(write(last.revision, last.value));
      if (body.length > LARGEST_KEPT_ALIVE) return;
      const headers = { 'content-type': 'application/json' };
      void fetch(url, { method: 'PUT', headers, body, keepalive: true }).catch(() => undefined);
    };
    window.addEventListener('pagehide', onLeave);
    return () => window.removeEventListener('pagehide', onLeave);
  }, [queue, url, write]);
}

/** What an earlier visit left unsaved, unless it stands on file by now. */
function useAside<T>(queue: SaveQueue<T>, url: string) {
  const [aside, setAside] = useState<Found<T> | null>(null);
  useEffect(() => {
    void laidAside<T>(url).then((found) => {
      if (!found) return;
      if (JSON.stringify(found.value) === JSON.stringify(queue.onFile.value)) void found.drop();
      else setAside(found);
    });
  }, [queue, url]);
  const leaveAside = useCallback(() => {
    setAside(null);
    void aside?.drop();
  }, [aside]);
  return { aside, leaveAside };
}

/** Saves `value` whenever it differs from what is on file and `savable` holds. */
export function useSaving<T>(options: SavingOptions<T>): Saving<T> {
  const { loaded, value, savable, url } = options;
  const queue = useQueue(options, loaded);
  const { aside, leaveAside } = useAside(queue, url);
  useEffect(() => queue.set(value, savable), [queue, value, savable]);
  useLeaving(queue, options);
  // What is not on file yet is never shown as saved, not even for the moment until it is noticed.
  const isUnsaved = value !== queue.onFile.value && queue.state.state === 'saved';
  const isSame = isUnsaved && JSON.stringify(value) === JSON.stringify(queue.onFile.value);
  return {
    save: isUnsaved && !isSame ? { state: 'waiting' } : queue.state,
    revision: queue.onFile.revision,
    flush: useCallback(() => queue.flush(), [queue]),
    currentRevision: useCallback(() => queue.onFile.revision, [queue]),
    moveTo: useCallback((revision: number) => queue.moveTo(revision), [queue]),
    carryOnFrom: useCallback((newer: OnFile<T>) => queue.carryOnFrom(newer), [queue]),
    aside,
    leaveAside,
  };
}
