import { useCallback, useSyncExternalStore } from 'react';

/** Told when this page changes its own address. */
const CHANGED = 'proportia:address';

function subscribe(onChange: () => void): () => void {
  window.addEventListener('popstate', onChange);
  window.addEventListener(CHANGED, onChange);
  return () => {
    window.removeEventListener('popstate', onChange);
    window.removeEventListener(CHANGED, onChange);
  };
}

/** What is looked at, kept in the address so that it outlasts a reload and can be linked; null on the server. */
export function useQueryParam(name: string): readonly [string | null, (value: string | null) => void] {
  const value = useSyncExternalStore(
    subscribe,
    () => new URLSearchParams(location.search).get(name),
    () => null,
  );
  const set = useCallback(
    (next: string | null) => {
      const query = new URLSearchParams(location.search);
      if (next === null) query.delete(name);
      else query.set(name, next);
      const text = query.toString();
      window.history.replaceState(null, '', text ? `?${text}` : location.pathname);
      window.dispatchEvent(new Event(CHANGED));
    },
    [name],
  );
  return [value, set];
}
