/** The bench scale as a pan for one bar after the other: what rests on it now. */
import { useEffect, useState } from 'react';
import { steadyG } from '../../core/weighing/steady';
import type { Reading } from '../../core/weighing/follow';
import { address } from '../../ui/api';
import { useStable } from '../../ui/latest';

const KEPT = 30;
const LOST_MS = 2500;

export interface Pan {
  /** The last reading; null while the scale says nothing. */
  shownG: number | null;
  /** What rests on it: 0 for an empty pan, null while it moves. */
  restsG: number | null;
}

/** Follows the scale while `isOn`. */
export function usePan(readabilityG: number, isOn: boolean): Pan {
  const [readings, setReadings] = useState<Reading[]>([]);
  const take = useStable((reading: Reading) =>
    // The same reading told again is none.
    setReadings((old) => (old.at(-1)?.atMs === reading.atMs ? old : [...old.slice(-KEPT), reading])),
  );
  useEffect(() => {
    if (!isOn) return;
    const source = new EventSource(address('scale', 'readings'));
    let lost: ReturnType<typeof setTimeout> | undefined;
    source.onmessage = ({ data }: MessageEvent<string>) => {
      clearTimeout(lost);
      lost = setTimeout(() => setReadings([]), LOST_MS);
      take(JSON.parse(data) as Reading);
    };
    return () => {
      clearTimeout(lost);
      source.close();
    };
  }, [isOn, take]);
  return { shownG: readings.at(-1)?.g ?? null, restsG: steadyG(readings, readabilityG) };
}
