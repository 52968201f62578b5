/** Asks the worker how a block heats; what is asked anew or given up ends the work under way. */
import { useEffect, useMemo, useState } from 'react';
import type { Measured } from '../../core/heat/calibrate';
import type { Band } from '../../core/heat/ensemble';
import type { Run } from '../../core/heat/types';
import type { Advice, Question, WayBand } from '../../core/heat/ways';
import type { Mould } from '../../core/making/size';
import type { MouldWarmth } from '../../core/records/warmth';
import { address, send } from '../../ui/api';
import type { HeatReply, HeatTask, Learnt } from '../../workers/heat-worker';

export interface Heat {
  run: Run | null;
  band: Band | null;
  ways: WayBand[];
  advice: Advice | null;
  learnt: Learnt | null;
  /** Of the work under way, 0 to 1; null where none is. */
  progress: number | null;
  /** Why there is nothing to show. */
  failed: string | null;
  cancel: () => void;
}

type State = Omit<Heat, 'cancel'>;

const NOTHING: State = {
  run: null,
  band: null,
  ways: [],
  advice: null,
  learnt: null,
  progress: 0,
  failed: null,
};

function told(state: State, reply: HeatReply): State {
  switch (reply.kind) {
    case 'first':
      return { ...NOTHING, run: reply.run };
    case 'learnt':
      return { ...state, learnt: reply.learnt };
    case 'progress':
      return { ...state, progress: reply.done / reply.of };
    case 'band':
      return { ...state, band: reply.band };
    case 'ways':
      return { ...state, ways: reply.ways, advice: reply.advice, progress: null };
    case 'failed':
      return { ...NOTHING, failed: reply.message, progress: null };
  }
}

/** Typing is waited for so long before the work begins anew, milliseconds. */
const PAUSE_MS = 350;

/** Earlier pours in a mould with what was measured; empty until they are there. */
export function useWarmth(mould: string | null): MouldWarmth['measured'] {
  const [found, setFound] = useState<{ mould: string; measured: MouldWarmth['measured'] } | null>(null);
  useEffect(() => {
    if (mould === null) return;
    let isStale = false;
    void send<MouldWarmth>('GET', address('moulds', mould, 'warmth')).then((answer) => {
      if (!isStale && answer.ok) setFound({ mould, measured: answer.body.measured });
    });
    return () => {
      isStale = true;
    };
  }, [mould]);
  return useMemo(() => (found?.mould === mould ? found.measured : []), [found, mould]);
}

/** How a pour heats. Null asks nothing. */
export function useHeat(
  question: Question | null,
  measured: readonly Measured[],
  single: Mould | null,
): Heat {
  const [state, setState] = useState<State>(NOTHING);
  const [stop, setStop] = useState<() => void>(() => () => undefined);
  const task = useMemo<HeatTask | null>(
    () => question && { question, measured, single },
    [question, measured, single],
  );
  useEffect(() => {
    if (!task) return;
    let worker: Worker | null = null;
    const timer = setTimeout(() => {
      worker = new Worker(new URL('../../workers/heat-worker.ts', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<HeatReply>) =>
        setState((before) => told(before, data)),
      );
      worker.addEventListener('error', () =>
        setState((before) => ({
          ...before,
          progress: null,
          failed: 'The reckoning stopped. Change something to begin it again.',
        })),
      );
      setStop(() => () => {
        worker?.terminate();
        setState((before) => ({ ...before, progress: null }));
      });
      worker.postMessage(task);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      worker?.terminate();
    };
  }, [task]);
  return { ...state, cancel: stop };
}
