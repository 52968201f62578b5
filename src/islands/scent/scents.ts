import { useCallback, useEffect, useState } from 'react';
import type { CupboardEntry } from '../../core/records/cupboard';
import type { Scent } from '../../core/records/scent';
import { address, send, type Fault } from '../../ui/api';

export interface Scents {
  scents: readonly Scent[];
  /** Asks for scents by id; those that cannot be had are told. */
  ask: (ids: readonly string[]) => void;
  faults: readonly Fault[];
}

/** What scents hold: those known at first, and those asked for since. */
export function useScents(known: readonly Scent[]): Scents {
  const [scents, setScents] = useState(known);
  const [faults, setFaults] = useState<Fault[]>([]);
  const ask = useCallback((ids: readonly string[]) => {
    const one = (id: string) => send<CupboardEntry>('GET', address('materials', id));
    void Promise.all(ids.map(one)).then((answers) => {
      const came = answers.flatMap((answer) => (answer.ok ? [answer.body] : []));
      setFaults(answers.flatMap((answer) => (answer.ok ? [] : answer.faults)));
      setScents((all) => [
        ...all.filter((had) => !came.some(({ material }) => material.id === had.material.id)),
        ...came,
      ]);
    });
  }, []);
  return { scents, ask, faults };
}

/** The last of the blend's parts of which all is known; what is not known yet is asked for. */
export function useKnownParts<Part extends { material: string }>(
  { scents, ask }: Scents,
  parts: readonly Part[],
): readonly Part[] {
  const [last, setLast] = useState<readonly Part[]>([]);
  const missing = parts.flatMap(({ material }) =>
    scents.some((known) => known.material.id === material) ? [] : [material],
  );
  const wanted = missing.sort().join('\n');
  useEffect(() => {
    if (wanted !== '') ask(wanted.split('\n'));
  }, [wanted, ask]);
  if (wanted === '' && last !== parts) setLast(parts);
  return wanted === '' ? parts : last;
}
