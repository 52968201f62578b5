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
import { keepScale, keptScale } from '../../ui/bench-store';
import { useStable } from '../../ui/latest';
import { hearSerial, useSerial, type SerialState } from '../../ui/serial-scale';

export interface BenchScale {
  following: Following;
  /** Whether the vessel stands on the scale at zero, so that what comes counts. */
  isBegun: boolean;
  /** What the display says of itself; `away` while no reading comes at all. */
  state: ScaleState | 'away';
  /** Counts from what the display shows now. */
  tare: () => void;
  answer: (carryOn: boolean) => void;
  /** The scale of this device, where one is used. */
  serial: SerialState;
}

/** Without a reading for so long the stream counts as lost. */
const LOST_MS = 2500;
/** A display at rest within so many steps of zero was zeroed: the vessel is on. */
const AT_ZERO = 2;

interface Weighing {
  following: Following;
  isBegun: boolean;
}

/** Follows one reading; before the vessel is on at zero, nothing counts. */
function followed({ following, isBegun }: Weighing, reading: Reading): Weighing {
  const after = followScale(following, reading);
  // What the scale itself calls unstable does not rest.
  const next = reading.isStable === false ? { ...after, settled: false } : after;
  if (isBegun) return { following: next, isBegun };
  // Before the vessel is on at zero nothing is held that could be asked about.
  if (next.question && next.question.code !== 'zeroed')
    return { following: startFollowing({ readabilityG: next.readabilityG }), isBegun };
  const shownG = next.recent.at(-1)?.g ?? Infinity;
  const isZeroed = Math.abs(shownG - next.offsetG) <= AT_ZERO * next.readabilityG;
  const rests = next.settled || next.question?.code === 'zeroed';
  return isZeroed && rests ? { following: tareFollowing(next), isBegun: true } : { following: next, isBegun };
}

/** What is held is kept no more often than this. */
const KEEP_MS = 1000;
/** Readings that are followed once more where what an earlier visit kept comes late. */
const MOST_EARLY = 600;

/** Keeps what is held for a line, no more often than need be and without anything waiting for it. */
function useKeeper(batch: string, line: string) {
  const pending = useRef<{ timer: ReturnType<typeof setTimeout>; value: Weighing } | null>(null);
  const flush = useStable(() => {
    if (!pending.current) return;
    clearTimeout(pending.current.timer);
    void keepScale(batch, line, pending.current.value);
    pending.current = null;
  });
  useEffect(() => {
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [flush]);
  const keep = useStable((value: Weighing) => {
    if (pending.current) pending.current.value = value;
    else pending.current = { timer: setTimeout(flush, KEEP_MS), value };
  });
  return { keep, flush };
}

/** Follows the scale for one weighing; batch and line name it, so that a reload goes on at the same gram. */
export function useScale(batch: string, line: string, readabilityG: number): BenchScale {
  const [weighing, setWeighing] = useState<Weighing>({
    following: startFollowing({ readabilityG }),
    isBegun: false,
  });
  // Several readings may come before the next drawing; each follows on the one before.
  const held = useRef(weighing);
  /** Readings since the page was opened, until it is known what an earlier visit kept; null after that. */
  const early = useRef<Reading[] | null>([]);
  const { keep, flush } = useKeeper(batch, line);
  const [state, setState] = useState<ScaleState | 'away'>('away');
  const put = useStable((act: (was: Weighing) => Weighing) => {
    held.current = act(held.current);
    if (early.current === null) keep(held.current);
    setWeighing(held.current);
  });
  useEffect(() => {
    void keptScale<Weighing>(batch, line).then((kept) => {
      const readings = early.current;
      early.current = null;
      if (kept && readings) put(() => readings.reduce(followed, kept));
    });
  }, [batch, line, put]);
  const take = useStable((reading: Reading) => {
    setState(reading.state ?? 'ok');
    if (early.current) early.current = [...early.current, reading].slice(-MOST_EARLY);
    put((was) => followed(was, reading));
  });
  const serial = useSerial();
  const isSerial = serial.is === 'on' || serial.is === 'lost';
  useEffect(() => (isSerial ? hearSerial(take) : undefined), [isSerial, take]);
  useEffect(() => {
    if (isSerial) return;
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
  }, [take, isSerial]);
  const { following, isBegun } = weighing;
  /** What a hand did here counts, whatever an earlier visit kept. */
  const byHand = (act: (was: Weighing) => Weighing) => {
    early.current = null;
    put(act);
    // Said once, it is not asked again after a reload.
    flush();
  };
  return {
    following,
    isBegun,
    serial,
    state: serial.is === 'lost' ? 'unplugged' : state,
    tare: () => byHand((was) => ({ following: tareFollowing(was.following), isBegun: true })),
    answer: (carryOn) => byHand((was) => ({ ...was, following: followScale(was.following, { carryOn }) })),
  };
}
