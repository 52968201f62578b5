/** The batch on this device: what is known of it, what is written down, and what others write meanwhile. */
import { useEffect, useMemo, useState } from 'react';
import { foldBatch } from '../../core/batch/fold';
import type { Batch, BatchEvent, EventFields, EventType } from '../../core/batch/types';
import type { BatchDetail } from '../../core/records/batch';
import { address, makeKey, send } from '../../ui/api';
import { asideFor, laidAside } from '../../ui/aside';
import { EventQueue, type EventOutcome } from '../../ui/event-queue';

const REFUSED_FROM = 400;
const REFUSED_TO = 500;

async function sendEvents(id: string, after: number, events: readonly BatchEvent[]): Promise<EventOutcome> {
  const answer = await send<{ seq: number; events?: BatchEvent[] }>(
    'POST',
    address('batches', id, 'events'),
    {
      after,
      events,
    },
  );
  if (answer.ok) {
    const { seq, events: since } = answer.body;
    return answer.status === 409 && since
      ? { outcome: 'behind', seq, events: since }
      : { outcome: 'taken', seq };
  }
  if (answer.status < REFUSED_FROM || answer.status >= REFUSED_TO) return { outcome: 'silent' };
  const [fault] = answer.faults;
  const at = Number(/^events\.(\d+)/.exec(fault?.path ?? '')?.[1] ?? 0);
  return { outcome: 'refused', at, message: fault?.message ?? 'It was refused.' };
}

async function fetchEvents(id: string): Promise<BatchEvent[] | null> {
  const answer = await send<BatchDetail>('GET', address('batches', id));
  return answer.ok ? answer.body.events : null;
}

/** A moment with this device's own offset, so that the day of a batch is the day of the bench. */
export function momentHere(): string {
  const date = new Date();
  const offset = -date.getTimezoneOffset();
  const two = (value: number) => String(Math.floor(Math.abs(value))).padStart(2, '0');
  const local = new Date(date.getTime() + offset * 60_000).toISOString().slice(0, -1);
  return `${local}${offset < 0 ? '-' : '+'}${two(offset / 60)}:${two(Math.abs(offset) % 60)}`;
}

/** Writes one event down; the rest of it is added here. */
export type Write = <T extends EventType>(type: T, fields: EventFields[T]) => void;

export interface Writing {
  batch: Batch;
  queue: EventQueue;
  write: Write;
  by: string;
  setBy: (name: string) => void;
}

const BY_KEY = 'proportia.by';

/** Listens to what others write down. */
function useNews(id: string, queue: EventQueue): void {
  useEffect(() => {
    const source = new EventSource(address('batches', id, 'follow'));
    source.onmessage = ({ data }: MessageEvent<string>) =>
      void queue.news((JSON.parse(data) as { seq: number }).seq);
    const online = () => queue.retry();
    window.addEventListener('online', online);
    return () => {
      source.close();
      window.removeEventListener('online', online);
    };
  }, [id, queue]);
}

/** The batch of a page with everything to write it down. */
export function useWriting(detail: BatchDetail): Writing {
  const { id } = detail;
  const [, redraw] = useState(0);
  const [by, setName] = useState(() => localStorage.getItem(BY_KEY) ?? detail.batch.startedBy ?? '');
  const [queue] = useState(() => {
    const aside = asideFor<BatchEvent[]>(`events of ${id}`);
    return new EventQueue({
      batch: id,
      known: detail.events,
      send: (after, events) => sendEvents(id, after, events),
      fetchAll: () => fetchEvents(id),
      keep: (events) =>
        events.length === 0
          ? aside.drop()
          : aside.put({ revision: 0, at: new Date().toISOString(), value: [...events] }),
      after: (ms, call) => {
        const timer = setTimeout(call, ms);
        return () => clearTimeout(timer);
      },
      onChange: () => redraw((count) => count + 1),
    });
  });
  useEffect(() => {
    void laidAside<BatchEvent[]>(`events of ${id}`).then((found) => found && queue.resume(found.value));
    return () => queue.close();
  }, [id, queue]);
  useNews(id, queue);
  const { known, waiting } = queue;
  const batch = useMemo(() => foldBatch([...known, ...waiting])!, [known, waiting]);
  const write: Write = (type, fields) => {
    const event = {
      id: makeKey(),
      type,
      at: momentHere(),
      by: by || null,
      ...fields,
    } as unknown as BatchEvent;
    void queue.write(event);
  };
  const setBy = (name: string) => {
    localStorage.setItem(BY_KEY, name);
    setName(name);
  };
  return { batch, queue, write, by, setBy };
}
