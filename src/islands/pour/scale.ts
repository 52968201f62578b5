/** The scale of this bench, followed: readings come as a stream; what is held survives a reload. */
import { useEffect, useState } from 'react';
import {
  followScale,
  startFollowing,
  type Following,
  type Reading,
  type ScaleState,
} from '../../core/weighing/follow';
import { tareFollowing } from '../../core/weighing/tare';
import { address } from '../../ui/api';
import { useStable } from '../../ui/latest';

export interface BenchScale {
  following: Following;
  /** What the display says of itself; `away` while no reading comes at all. */
  state: ScaleState | 'away';
  tare: () => void;
  answer: (carryOn: boolean) => void;
}

/** Without a reading for so long the stream counts as lost. */
const LOST_MS = 2500;

function kept(key: string): Following | null {
  try {
    const text = localStorage.getItem(key);
    return text ? (JSON.parse(text) as Following) : null;
  } catch {
    return null;
  }
}

/** Follows the scale for one weighing; `key` names it, so that a reload goes on at the same gram. */
export function useScale(key: string, readabilityG: number): BenchScale {
  const storeKey = `proportia.scale ${key}`;
  const [following, setFollowing] = useState<Following>(
    () => kept(storeKey) ?? startFollowing({ readabilityG }),
  );
  const [state, setState] = useState<ScaleState | 'away'>('away');
  const put = useStable((next: Following) => {
    localStorage.setItem(storeKey, JSON.stringify(next));
    setFollowing(next);
  });
  const take = useStable((reading: Reading) => {
    setState(reading.state ?? 'ok');
    put(followScale(following, reading));
  });
  useEffect(() => {
    const source = new EventSource(address('scale', 'readings'));
    let lost: ReturnType<typeof setTimeout> | undefined;
    source.onmessage = ({ data }: MessageEvent<string>) => {
      clearTimeout(lost);
      lost = setTimeout(() => setState('away'), LOST_MS);
      take(JSON.parse(data) as Reading);
    };
    return () => {
      clearTimeout(lost);
      source.close();
    };
  }, [take]);
  return {
    following,
    state,
    tare: () => put(tareFollowing(following)),
    answer: (carryOn) => put(followScale(following, { carryOn })),
  };
}
