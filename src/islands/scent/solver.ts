import { useEffect, useRef, useState } from 'react';
import type { BlendReply, BlendTask } from '../../workers/blend-worker';

/** Solving in a worker, which can be stopped. */
export function useSolver() {
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<{ busy: boolean; reply: BlendReply | null }>({
    busy: false,
    reply: null,
  });
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setState((was) => ({ ...was, busy: false }));
  };
  useEffect(() => () => worker.current?.terminate(), []);
  const solve = (task: BlendTask) => {
    worker.current ??= new Worker(new URL('../../workers/blend-worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current.onmessage = (event: MessageEvent<BlendReply>) =>
      setState({ busy: false, reply: event.data });
    worker.current.onerror = () =>
      setState({ busy: false, reply: { ok: false, message: 'the solver could not be started' } });
    setState({ busy: true, reply: null });
    worker.current.postMessage(task);
  };
  const clear = () => setState({ busy: false, reply: null });
  return { ...state, solve, stop, clear };
}
