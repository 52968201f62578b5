import { useCallback, useLayoutEffect, useRef, type RefObject } from 'react';

/** What was given at the last drawing, for things that happen later: timers, workers, listeners. */
export function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}

/** The same function at every drawing, which does what the one given last does. For events, not for drawing. */
export function useStable<Args extends unknown[], Result>(
  act: (...args: Args) => Result,
): (...args: Args) => Result {
  const latest = useRef(act);
  useLayoutEffect(() => {
    latest.current = act;
  });
  return useCallback((...args: Args) => latest.current(...args), []);
}
