/** The scale of this bench, followed: readings come as a stream; what is held survives a reload. */
import { useEffect, useRef, useState } from 'react';
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
  /** Whether the vessel stands on the scale at zero, so that what comes counts. */
  isBegun: boolean;
  /** What the display says of itself; `away` while no reading comes at all. */
  state: ScaleState | 'away';
  /** Counts from what the display shows now. */
  tare: () => void;
  answer: (carryOn: boolean) => void;
}

/** Without a reading for so long the stream counts as lost. */
const LOST_MS = 2500;
/** A display at rest within so many steps of zero was zeroed: the vessel is on. */
const AT_ZERO = 2;

interface Weighing {
  following: Following;
  isBegun: boolean;
}

function kept(key: string): Weighing | null {
  try {
    const text = localStorage.getItem(key);
    return text ? (JSON.parse(text) as Weighing) : null;
  } catch {
    return null;
  }
}

/** Follows one reading; before the vessel is on at zero, nothing counts. */
function followed({ following, isBegun }: Weighing, reading: Reading): Weighing {
  const next = followScale(following, reading);
  if (isBegun) return { following: next, isBegun };
  const shownG = next.recent.at(-1)?.g ?? Infinity;
  const isZeroed = Math.abs(shownG - next.offsetG) <= AT_ZERO * next.readabilityG;
  const rests = next.settled || next.question?.code === 'zeroed';
  return isZeroed && rests ? { following: tareFollowing(next), isBegun: true } : { following: next, isBegun };
}

/** Follows the scale for one weighing; `key` names it, so that a reload goes on at the same gram. */
export function useScale(key: string, readabilityG: number): BenchScale {
  const storeKey = `proportia.scale ${key}`;
  const [weighing, setWeighing] = useState<Weighing>(
    () => kept(storeKey) ?? { following: startFollowing({ readabilityG }), isBegun: false },
  );
  // Several readings may come before the next drawing; each follows on the one before.
  const held = useRef(weighing);
  const [state, setState] = useState<ScaleState | 'away'>('away');
  const put = useStable((act: (was: Weighing) => Weighing) => {
    held.current = act(held.current);
    localStorage.setItem(storeKey, JSON.stringify(held.current));
    setWeighing(held.current);
  });
  const take = useStable((reading: Reading) => {
    setState(reading.state ?? 'ok');
    put((was) => followed(was, reading));
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
  const { following, isBegun } = weighing;
  return {
    following,
    isBegun,
    state,
    tare: () => put((was) => ({ following: tareFollowing(was.following), isBegun: true })),
    answer: (carryOn) => put((was) => ({ ...was, following: followScale(was.following, { carryOn }) })),
  };
}
