/** Autosave: the last change is sent once the hands rest; a stale window is told and asked, never overwritten. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Formula } from '../../core/formula/types';
import type { WorkingVersion } from '../../server/repositories/products';

const REST_MS = 500;

export type SaveState =
  | { state: 'saved'; at: string }
  | { state: 'waiting' }
  | { state: 'saving' }
  | { state: 'stale'; newer: WorkingVersion }
  | { state: 'failed'; message: string };

interface Saving {
  save: SaveState;
  revision: number;
  /** Sends what is unsaved now; resolves true once everything is on file. */
  flush: () => Promise<boolean>;
  /** The revision on file, also right after a flush. */
  currentRevision: () => number;
  /** The same formula is on file under a new revision, because a version of it was kept. */
  moveTo: (revision: number) => void;
  /** After a stale save: carries on from the newer revision, with whatever formula is on the table. */
  carryOnFrom: (version: WorkingVersion) => void;
}

async function send(
  productId: string,
  revision: number,
  formula: Formula,
): Promise<SaveState | WorkingVersion> {
  try {
    const answer = await fetch(`/api/v1/products/${encodeURIComponent(productId)}/formula`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision, formula }),
    });
    const body = (await answer.json()) as {
      version?: WorkingVersion;
      stale?: WorkingVersion;
      errors?: { message: string }[];
    };
    if (body.version) return body.version;
    if (body.stale) return { state: 'stale', newer: body.stale };
    return { state: 'failed', message: body.errors?.[0]?.message ?? 'The formula was not taken.' };
  } catch {
    return { state: 'failed', message: 'The application does not answer. Your changes stay here.' };
  }
}

/** Saves `formula` whenever it differs from what is on file and `savable` holds. */
export function useSaving(
  productId: string,
  loaded: WorkingVersion,
  formula: Formula,
  savable: boolean,
): Saving {
  const [save, setSave] = useState<SaveState>({ state: 'saved', at: loaded.savedAt });
  const [onFile, setOnFile] = useState({ revision: loaded.revision, formula: loaded.formula });
  const latest = useRef({ formula, onFile, savable });
  latest.current = { formula, onFile, savable };
  const running = useRef<Promise<boolean> | null>(null);

  const flush = useCallback(async (): Promise<boolean> => {
    if (running.current) await running.current;
    const { formula: current, onFile: known, savable: may } = latest.current;
    if (current === known.formula) return true;
    if (!may) return false;
    setSave({ state: 'saving' });
    running.current = send(productId, known.revision, current).then((outcome) => {
      if ('state' in outcome) {
        setSave(outcome);
        return false;
      }
      const next = { revision: outcome.revision, formula: current };
      latest.current.onFile = next;
      setOnFile(next);
      setSave({ state: 'saved', at: outcome.savedAt });
      return true;
    });
    const done = await running.current;
    running.current = null;
    return done;
  }, [productId]);

  const unsaved = formula !== onFile.formula;
  const stale = save.state === 'stale';
  useEffect(() => {
    if (!unsaved || stale) return;
    setSave({ state: 'waiting' });
    if (!savable) return;
    const timer = setTimeout(() => void flush(), REST_MS);
    return () => clearTimeout(timer);
  }, [formula, unsaved, stale, savable, flush]);

  const carryOnFrom = useCallback((version: WorkingVersion) => {
    const next = { revision: version.revision, formula: version.formula };
    latest.current.onFile = next;
    setOnFile(next);
    setSave({ state: 'saved', at: version.savedAt });
  }, []);

  const moveTo = useCallback((revision: number) => {
    const next = { revision, formula: latest.current.onFile.formula };
    latest.current.onFile = next;
    setOnFile(next);
  }, []);

  const currentRevision = useCallback(() => latest.current.onFile.revision, []);

  return { save, revision: onFile.revision, flush, currentRevision, moveTo, carryOnFrom };
}
