/** The batch on this device: what is known of it, what is written down, and what others write meanwhile. */
import { useEffect, useMemo, useState } from 'react';
import { foldBatch } from '../core/batch/fold';
import type { Batch, BatchEvent, EventFields, EventType } from '../core/batch/types';
import type { BatchDetail } from '../core/records/batch';
import { address, makeKey, send, type Answer } from './api';
import { saidOf } from './batch-words';
import { keepEvents, keepKnown, keptEvents, keptKnown } from './bench-store';
import { EventQueue, type EventOutcome, type SetAside } from './event-queue';

const NO_REASON = 'It was refused.';

/** What an answer to events means. Only a fault that names an event says something of that event. */
export function outcomeOf(answer: Answer<{ seq: number; events?: BatchEvent[] }>): EventOutcome {
  if (answer.ok) {
    const { seq, events: since } = answer.body;
    if (answer.status !== 409) return { outcome: 'taken', seq };
    return since ? { outcome: 'behind', seq, events: since } : { outcome: 'silent', why: NO_REASON };
  }
  const { status, faults } = answer;
  if (status === 0) return { outcome: 'silent', why: null };
  const named = faults.find(({ path }) => /^events\.\d+/.test(path));
  const isOfEvents = named && (status === 422 || status === 403);
  if (isOfEvents) {
    const at = Number(/^events\.(\d+)/.exec(named.path)![1]);
    return { outcome: 'refused', at, code: named.code ?? '', message: named.message };
  }
  if (faults.some(({ code, path }) => code === 'ahead' && path === 'after')) return { outcome: 'ahead' };
  return { outcome: 'silent', why: faults[0]?.message ?? NO_REASON };
}

async function sendEvents(id: string, after: number, events: readonly BatchEvent[]): Promise<EventOutcome> {
  return outcomeOf(await send('POST', address('batches', id, 'events'), { after, events }));
}

/** All events of a batch on file; null where there is no answer. */
export async function fetchEvents(id: string): Promise<BatchEvent[] | null> {
  const answer = await send<BatchDetail>('GET', address('batches', id));
  return answer.ok ? [...answer.body.events] : null;
}

/** A moment with this device's own offset, so that the day of a batch is the day of the bench. */
export function momentHere(): string {
  const date = new Date();
  const offset = -date.getTimezoneOffset();
  const two = (value: number) => String(Math.floor(Math.abs(value))).padStart(2, '0');
  const local = new Date(date.getTime() + offset * 60_000).toISOString().slice(0, -1);
  return `${local}${offset < 0 ? '-' : '+'}${two(offset / 60)}:${two(Math.abs(offset) % 60)}`;
}

/** Writes one event of a batch down from a place that does not hold the batch. */
export function writeOne<T extends EventType>(
  batch: string,
  type: T,
  fields: EventFields[T],
): Promise<Answer<unknown>> {
  const by = localStorage.getItem('proportia.by');
  const event = { id: makeKey(), type, at: momentHere(), by, ...fields };
  return send('POST', address('batches', batch, 'events'), { events: [event] });
}

/** Writes one event down; the rest of it is added here. */
export type Write = <T extends EventType>(type: T, fields: EventFields[T]) => void;

export interface Writing {
  batch: Batch;
  queue: EventQueue;
  write: Write;
  /** Writes something in place of what was set aside, or with null a note that it was left out. */
  decide: (aside: SetAside, instead: BatchEvent | null) => void;
  by: string;
  setBy: (name: string) => void;
  /** Where the application does not answer since the page was opened: the moment that is shown, ISO 8601. */
  asOf: string | null;
}

const BY_KEY = 'proportia.by';

/** Listens to what others write down. */
function useNews(id: string, queue: EventQueue): void {
  useEffect(() => {
    const source = new EventSource(address('batches', id, 'follow'));
    source.onmessage = ({ data }: MessageEvent<string>) =>
      void queue.news((JSON.parse(data) as { seq: number }).seq);
    const retry = () => queue.retry();
    // Back from signing in, or awake again: at once, not after the pause.
    const shown = () => document.visibilityState === 'visible' && queue.retry();
    window.addEventListener('online', retry);
    document.addEventListener('visibilitychange', shown);
    return () => {
      source.close();
      window.removeEventListener('online', retry);
      document.removeEventListener('visibilitychange', shown);
    };
  }, [id, queue]);
}

/** The queue of a batch on this device, from what is known of it; `onChange` is called at each change. */
export function queueOf(id: string, known: BatchEvent[], onChange: () => void): EventQueue {
  return new EventQueue({
    batch: id,
    known,
    send: (after, events) => sendEvents(id, after, events),
    fetchAll: () => fetchEvents(id),
    keep: ({ waiting, aside }, gone) => keepEvents(id, { waiting: [...waiting], aside: [...aside] }, gone),
    after: (ms, call) => {
      const timer = setTimeout(call, ms);
      return () => clearTimeout(timer);
    },
    onChange,
  });
}

/**
 * Keeps what is known of the batch, and takes it up where the page came out of the cache and nobody answers. Answers when
 * the application last said how it stands, ISO 8601; null while this page has heard it itself.
 */
function useKnown(id: string, queue: EventQueue): string | null {
  const [asOf, setAsOf] = useState<string | null>(null);
  /** Whether what is known here was said by the application since the page was opened. */
  const [isHeard, setHeard] = useState(() => !navigator.serviceWorker?.controller);
  const { known, state } = queue;
  useEffect(() => {
    if (!navigator.serviceWorker?.controller) return;
    let isGone = false;
    void fetchEvents(id).then(async (all) => {
      const kept = all ? null : await keptKnown(id);
      if (isGone || !kept) return;
      queue.learn(kept.events);
      setAsOf(kept.at);
    });
    return () => {
      isGone = true;
    };
  }, [id, queue]);
  useEffect(() => {
    if (isHeard || state !== 'sent') return;
    let isGone = false;
    void fetchEvents(id).then((all) => {
      if (isGone || !all) return;
      setHeard(true);
      setAsOf(null);
    });
    return () => {
      isGone = true;
    };
  }, [id, isHeard, state]);
  useEffect(() => {
    if (isHeard && state === 'sent')
      void keepKnown({ batch: id, events: [...known], at: new Date().toISOString() });
  }, [id, known, state, isHeard]);
  return asOf;
}

/** The batch of a page with everything to write it down. */
export function useWriting(detail: BatchDetail): Writing {
  const { id } = detail;
  const [, redraw] = useState(0);
  const [by, setName] = useState(() => localStorage.getItem(BY_KEY) ?? detail.batch.startedBy ?? '');
  const [queue] = useState(() => queueOf(id, [...detail.events], () => redraw((count) => count + 1)));
  useEffect(() => {
    void keptEvents(id).then((left) => queue.resume(left));
    return () => queue.close();
  }, [id, queue]);
  useNews(id, queue);
  const asOf = useKnown(id, queue);
  const { known, waiting } = queue;
  const batch = useMemo(() => foldBatch([...known, ...waiting])!, [known, waiting]);
  const made = <T extends EventType>(type: T, fields: EventFields[T]) =>
    ({ id: makeKey(), type, at: momentHere(), by: by || null, ...fields }) as unknown as BatchEvent;
  const write: Write = (type, fields) => void queue.write(made(type, fields));
  const decide: Writing['decide'] = ({ event, message }, instead) =>
    void queue.decide(
      event.id,
      instead ?? made('noted', { text: `Not taken: ${saidOf(event, batch)} (${message})`, for: 'record' }),
    );
  const setBy = (name: string) => {
    localStorage.setItem(BY_KEY, name);
    setName(name);
  };
  return { batch, queue, write, decide, by, setBy, asOf };
}
