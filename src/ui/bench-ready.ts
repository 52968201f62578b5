/** A bench that stays awake and goes on without the network once it was loaded. */
import { useEffect } from 'react';

const PAGES = 'bench-pages';

/** Tries of having the page kept, each so much later than the one before, milliseconds. */
const MOST_TRIES = 6;
const AGAIN_MS = 3000;

const rest = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** Whether a worker that is being put in comes to work; not where one of its files did not come. */
function comesToWork(worker: ServiceWorker): Promise<boolean> {
  return new Promise((done) => {
    const look = () => {
      if (worker.state === 'activated') done(true);
      else if (worker.state === 'redundant') done(false);
    };
    worker.addEventListener('statechange', look);
    look();
  });
}

/** Has the service worker keep this very page, which was loaded before it was there; false where it did not come to it. */
async function isKept(): Promise<boolean> {
  try {
    const registration = await navigator.serviceWorker.register('/sw.js');
    const coming = registration.installing ?? registration.waiting;
    if (!registration.active && !(coming && (await comesToWork(coming)))) return false;
    const cache = await caches.open(PAGES);
    if (!(await cache.match(location.href))) await cache.add(location.pathname);
    return true;
  } catch {
    // Without it the bench works as long as the network does.
    return false;
  }
}

/**
 * Registers the service worker and has it keep this page, more than once where the network failed meanwhile. Nothing
 * where the browser has none, as over plain HTTP.
 */
async function keepPage(isGone: () => boolean): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  for (let tried = 1; tried <= MOST_TRIES && !isGone(); tried++) {
    if (await isKept()) return;
    await rest(tried * AGAIN_MS);
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
    let isGone = false;
    void keepPage(() => isGone);
    const letSleep = stayAwake();
    return () => {
      isGone = true;
      letSleep();
    };
  }, []);
}
