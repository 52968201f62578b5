/** Asking the server for something that takes a moment: one thing at a time, its faults kept to be shown. */
import { useState } from 'react';
import type { Answer, Fault } from './api';

export interface Asking {
  busy: boolean;
  faults: readonly Fault[];
  setFaults: (faults: Fault[]) => void;
  /** Answers the body, or null where there are faults. */
  during: <T>(work: () => Promise<Answer<T>>) => Promise<T | null>;
}

export function useAsking(): Asking {
  const [busy, setBusy] = useState(false);
  const [faults, setFaults] = useState<Fault[]>([]);
  const during = async <T>(work: () => Promise<Answer<T>>): Promise<T | null> => {
    setBusy(true);
    const answer = await work();
    setBusy(false);
    setFaults(answer.ok ? [] : answer.faults);
    return answer.ok ? answer.body : null;
  };
  return { busy, faults, setFaults, during };
}
