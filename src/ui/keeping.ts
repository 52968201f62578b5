/** Keeping one record: one request at a time, faults told, nothing written over what another window kept. */
import { useCallback, useRef, useState } from 'react';
import { useLatest } from './latest';
import { makeKey, type Answer, type Fault } from './api';

export interface Keeping {
  busy: boolean;
  faults: readonly Fault[];
  setFaults: (faults: readonly Fault[]) => void;
  /**
   * Runs one request; a second one meanwhile does nothing. Answers the body, or null where it was refused or
   * came too late; `key` names the request for the server and stays the same until one is taken.
   */
  keep: <T>(request: (key: string) => Promise<Answer<T>>) => Promise<T | null>;
}

/** The fault told where another window kept something in between. */
const STALE: Fault = {
  path: '',
  code: 'stale',
  message:
    'This was changed in another window just now, and nothing was overwritten. Keep again to put yours in its place.',
};

/** `onStale` is given what stands on file now, so that keeping again is made from it. */
export function useKeeping<S = never>(onStale?: (newer: S) => void): Keeping {
  const [busy, setBusy] = useState(false);
  const [faults, setFaults] = useState<readonly Fault[]>([]);
  const running = useRef(false);
  const key = useRef<string | null>(null);
  const stale = useLatest(onStale);
  const keep = useCallback(
    async <T>(request: (key: string) => Promise<Answer<T>>): Promise<T | null> => {
      if (running.current) return null;
      running.current = true;
      setBusy(true);
      key.current ??= makeKey();
      const answer = await request(key.current);
      running.current = false;
      setBusy(false);
      if (!answer.ok) {
        setFaults(answer.faults);
        // A refused request made nothing; one without an answer may have, and is sent again under its key.
        if (answer.status !== 0) key.current = null;
        return null;
      }
      key.current = null;
      if (answer.status === 409) {
        setFaults([STALE]);
        stale.current?.(answer.body as unknown as S);
        return null;
      }
      setFaults([]);
      return answer.body;
    },
    [stale],
  );
  return { busy, faults, setFaults, keep };
}
