import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/** Whether the page has come to life; false in what the server sends. */
export function useHydrated(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
