/** A bench that stays awake and goes on without the network once it was loaded. */
import { useEffect, useState } from 'react';

const PAGES = 'bench-pages';

/** Whether this page comes up again without the network; null where the browser cannot, as over plain HTTP. */
export type Keeping = 'kept' | 'notYet' | null;

/** The first rest before it is tried again, by what each rest is longer than the one before, and the longest; milliseconds. */
const FIRST_REST_MS = 1000;
const LONGER = 1.5;
const LONGEST_REST_MS = 30_000;

/**
 * Registers the service worker, or finds it registered, and has it keep this very page, which may have been loaded before
 * it was there. False while it is not at work; where one of its files did not come, the next call puts it in anew.
 */
async function isPageKept(): Promise<boolean> {
  try {
    const registration = await navigator.serviceWorker.register('/sw.js');
    if (registration.active?.state !== 'activated') return false;
    const cache = await caches.open(PAGES);
    if (!(await cache.match(location.href))) await cache.add(location.pathname);
    return true;
  } catch {
    // The network failed, or the server was restarted.
    return false;
  }
}

/** Has this page kept, again and again until it is; the stop. */
function keepPage(onKept: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isGone = false;
  const look = async (restMs: number) => {
    const isKept = await isPageKept();
    if (isGone) return;
    if (isKept) onKept();
    else timer = setTimeout(() => void look(Math.min(restMs * LONGER, LONGEST_REST_MS)), restMs);
  };
  void look(FIRST_REST_MS);
  return () => {
    isGone = true;
    clearTimeout(timer);
  };
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

/** For every screen of the bench: keeps the screen on and the page for hours without the network; how far that is. */
export function useBenchReady(): Keeping {
  const [isKept, setKept] = useState(false);
  const canKeep = 'serviceWorker' in navigator;
  useEffect(() => stayAwake(), []);
  useEffect(() => (canKeep ? keepPage(() => setKept(true)) : undefined), [canKeep]);
  if (!canKeep) return null;
  return isKept ? 'kept' : 'notYet';
}
