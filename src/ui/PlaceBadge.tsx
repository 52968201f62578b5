import { useSyncExternalStore } from 'react';
import type { Attention, HandPlace } from '../core/hands/hand';
import { address, send } from './api';
import placeBadgeStyles from './PlaceBadge.module.css';

const REFRESH_MS = 120_000;

/** One look serves every badge of the page. */
let known: Attention | null = null;
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | null = null;

async function look(): Promise<void> {
  if (document.visibilityState !== 'visible') return;
  const answer = await send<Attention>('GET', address('attention'));
  if (!answer.ok) return;
  known = answer.body;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  if (timer === null) {
    timer = setInterval(() => void look(), REFRESH_MS);
    void look();
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0 || timer === null) return;
    clearInterval(timer);
    timer = null;
  };
}

/** What waits in a place, beside its name in the header; nothing where nothing does. */
export function PlaceBadge({ place }: { place: HandPlace }) {
  const attention = useSyncExternalStore(
    subscribe,
    () => known,
    () => null,
  );
  const waits = attention?.[place];
  if (!waits) return null;
  return (
    <span className={placeBadgeStyles.placeBadge} data-place={place} title={waits.words}>
      <span aria-hidden="true">{waits.count}</span>
      {/* The link is named by its place: what waits first is told there, and on hovering. */}
      <span className="sr-only">, {waits.count} cannot wait</span>
    </span>
  );
}
