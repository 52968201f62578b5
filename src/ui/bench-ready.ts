/** A bench that stays awake and goes on without the network once it was loaded. */
import { useEffect } from 'react';

const PAGES = 'bench-pages';

/**
 * Registers the service worker and has it keep this very page, which was loaded before it was there. Nothing where the
 * browser has none, as over plain HTTP.
 */
async function keepPage(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/sw.js');
    await navigator.serviceWorker.ready;
    const cache = await caches.open(PAGES);
    if (!(await cache.match(location.href))) await cache.add(location.pathname);
  } catch {
    // Without it the bench works as long as the network does.
  }
}

/** Keeps the screen on while the bench is open; where the browser has no lock of its own, by a silent film after a touch. */
function stayAwake(): () => void {
  let isGone = false;
  let release = () => undefined as void;
  const lock = async () => {
    if (isGone || document.visibilityState !== 'visible') return;
    if ('wakeLock' in navigator) {
      try {
        const held = await navigator.wakeLock.request('screen');
        release = () => void held.release();
        return;
      } catch {
        // Refused, as while the battery is low: the film may still do.
      }
    }
    const { default: NoSleep } = await import('nosleep.js');
    const film = new NoSleep();
    const begin = () => void film.enable().catch(() => undefined);
    document.addEventListener('pointerdown', begin, { once: true });
    release = () => {
      document.removeEventListener('pointerdown', begin);
      film.disable();
    };
  };
  const seen = () => void lock();
  void lock();
  document.addEventListener('visibilitychange', seen);
  return () => {
    isGone = true;
    document.removeEventListener('visibilitychange', seen);
    release();
  };
}

/** For every screen of the bench. */
export function useBenchReady(): void {
  useEffect(() => {
    void keepPage();
    return stayAwake();
  }, []);
}
