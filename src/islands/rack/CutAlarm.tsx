import { useEffect, useState } from 'react';
import type { CutWindow } from '../../core/curing/window';
import { MS_PER_HOUR } from '../../core/quantities/day';
import { permitAlarm, ring } from '../../ui/alarm';

/** It rings again so often, but not for ever. */
const RING_EVERY_MS = 8000;
const RINGS_FOR_MS = 300_000;
const LOOK_MS = 1000;

/** Rings when the window opens, where this page stays open; permitted by a tap. */
export function CutAlarm({ pouredAt, window, id }: { pouredAt: string; window: CutWindow; id: string }) {
  const key = `proportia.cut-alarm ${id}`;
  const [isOn, setOn] = useState(() => localStorage.getItem(key) !== null);
  const [nowMs, setNow] = useState(() => Date.now());
  const opens = Math.min(...window.portions.map(({ fromHours }) => fromHours));
  const dueMs = Date.parse(pouredAt) + opens * MS_PER_HOUR - nowMs;
  useEffect(() => {
    if (!isOn) return;
    const timer = setInterval(() => setNow(Date.now()), LOOK_MS);
    return () => clearInterval(timer);
  }, [isOn]);
  const isDue = isOn && dueMs <= 0 && dueMs > -RINGS_FOR_MS;
  useEffect(() => {
    if (!isDue) return;
    ring();
    const again = setInterval(ring, RING_EVERY_MS);
    return () => clearInterval(again);
  }, [isDue]);
  if (dueMs < -RINGS_FOR_MS) return null;
  const toggle = () => {
    permitAlarm();
    if (isOn) localStorage.removeItem(key);
    else localStorage.setItem(key, 'on');
    setNow(Date.now());
    setOn(!isOn);
  };
  const minutes = Math.max(0, Math.ceil(dueMs / 60_000));
  const left = minutes >= 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes} min`;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <button type="button" className="action" aria-pressed={isOn} onClick={toggle}>
        {isOn ? 'No alarm' : 'Ring here when it opens'}
      </button>
      {isOn && (
        <p role="status">
          {isDue
            ? 'The window is open: try it with a finger.'
            : `Rings in ${left}, while this page stays open.`}
        </p>
      )}
    </div>
  );
}
