/** Autosave: the last change is sent once the hands rest; a stale window is told and asked, never overwritten. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { send } from './api';

const REST_MS = 500;

/** Something as it stands on file. */
export interface OnFile<T> {
  revision: number;
  savedAt: string;
  value: T;
}

export type SaveState<T> =
  | { state: 'saved'; at: string }
  | { state: 'waiting' }
  | { state: 'saving' }
  | { state: 'stale'; newer: OnFile<T> }
  | { state: 'failed'; message: string };

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

/** Saves `value` whenever it differs from what is on file and `savable` holds. `write` and `read` must be stable. */
export function useSaving<T>({ url, loaded, value, savable, write, read }: SavingOptions<T>): Saving<T> {
  const [save, setSave] = useState<SaveState<T>>({ state: 'saved', at: loaded.savedAt });
  const [onFile, setOnFile] = useState({ revision: loaded.revision, value: loaded.value });
  const latest = useRef({ value, onFile, savable });
  latest.current = { value, onFile, savable };
  const running = useRef<Promise<boolean> | null>(null);

  const sendValue = useCallback(
    async (revision: number, current: T): Promise<SaveState<T> | { saved: OnFile<T> }> => {
      const answer = await send<unknown>('PUT', url, write(revision, current));
      if (!answer.ok) return { state: 'failed', message: answer.faults[0]!.message };
      const told = read(answer.body);
      return 'stale' in told ? { state: 'stale', newer: told.stale } : told;
    },
    [url, write, read],
  );

  const flush = useCallback(async (): Promise<boolean> => {
    if (running.current) await running.current;
    const { value: current, onFile: known, savable: may } = latest.current;
    if (current === known.value) return true;
    if (!may) return false;
    setSave({ state: 'saving' });
    running.current = sendValue(known.revision, current).then((outcome) => {
      if ('state' in outcome) {
        setSave(outcome);
        return false;
      }
      const next = { revision: outcome.saved.revision, value: current };
      latest.current.onFile = next;
      setOnFile(next);
      setSave({ state: 'saved', at: outcome.saved.savedAt });
      return true;
    });
    const done = await running.current;
    running.current = null;
    return done;
  }, [sendValue]);

  const unsaved = value !== onFile.value;
  const stale = save.state === 'stale';
  useEffect(() => {
    if (!unsaved || stale) return;
    setSave({ state: 'waiting' });
    if (!savable) return;
    const timer = setTimeout(() => void flush(), REST_MS);
    return () => clearTimeout(timer);
  }, [value, unsaved, stale, savable, flush]);

  // A page that is left before the hands rested sends its last change on the way out.
  useEffect(() => {
    const onLeave = () => {
      const { value: current, onFile: known, savable: may } = latest.current;
      if (current === known.value || !may || running.current) return;
      const body = JSON.stringify(write(known.revision, current));
      void fetch(url, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body,
        keepalive: true,
      });
    };
    window.addEventListener('pagehide', onLeave);
    return () => window.removeEventListener('pagehide', onLeave);
  }, [url, write]);

  const carryOnFrom = useCallback((newer: OnFile<T>) => {
    const next = { revision: newer.revision, value: newer.value };
    latest.current.onFile = next;
    setOnFile(next);
    setSave({ state: 'saved', at: newer.savedAt });
  }, []);

  const moveTo = useCallback((revision: number) => {
    const next = { revision, value: latest.current.onFile.value };
    latest.current.onFile = next;
    setOnFile(next);
  }, []);

  const currentRevision = useCallback(() => latest.current.onFile.revision, []);

  // What is not on file yet is never shown as saved, not even for the moment until it is noticed.
  const shown: SaveState<T> = unsaved && save.state === 'saved' ? { state: 'waiting' } : save;
  return { save: shown, revision: onFile.revision, flush, currentRevision, moveTo, carryOnFrom };
}
