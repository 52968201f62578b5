/** The bench's events: kept first, sent in order, told of others, and never lost. */
import { expect } from 'chai';
import type { BatchEvent } from '../../src/core/batch/types';
import { EventQueue, type EventOutcome, type EventSetting } from '../../src/ui/event-queue';

const note = (id: string) =>
  ({ id, type: 'noted', at: '2026-11-24T10:00:00Z', by: null, text: id, for: 'record' }) as BatchEvent;
const ids = (events: readonly BatchEvent[]) => events.map(({ id }) => id);

/** A queue before a made-up server that can be away, and whose answers can be lost. */
function bench(known: BatchEvent[] = [note('start')]) {
  const server = {
    events: [...known],
    isAway: false,
    losesAnswers: false,
    refuses: new Set<string>(),
    requests: 0,
  };
  const kept: string[][] = [];
  const timers: (() => void)[] = [];
  const send = (after: number, events: readonly BatchEvent[]): Promise<EventOutcome> => {
    server.requests++;
    if (server.isAway) return Promise.resolve({ outcome: 'silent' });
    const fresh = events.filter(({ id }) => !ids(server.events).includes(id));
    if (after < server.events.length && fresh.length > 0)
      return Promise.resolve({
        outcome: 'behind',
        seq: server.events.length,
        events: server.events.slice(after),
      });
    const at = fresh.findIndex(({ id }) => server.refuses.has(id));
    if (at >= 0)
      return Promise.resolve({ outcome: 'refused', at: events.indexOf(fresh[at]!), message: 'no' });
    server.events.push(...fresh);
    return Promise.resolve(
      server.losesAnswers ? { outcome: 'silent' } : { outcome: 'taken', seq: server.events.length },
    );
  };
  const setting: EventSetting = {
    batch: 'b',
    known: [...known],
    send,
    fetchAll: () => Promise.resolve(server.isAway ? null : [...server.events]),
    keep: (events) => {
      kept.push(ids(events));
      return Promise.resolve();
    },
    after: (_ms, call) => {
      timers.push(call);
      return () => undefined;
    },
    onChange: () => undefined,
  };
  return { queue: new EventQueue(setting), server, kept, timers, setting };
}

const settle = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('events of the bench', () => {
  it('are kept in the browser before they are sent, and sent in order', async () => {
    const { queue, server, kept } = bench();
    await Promise.all([queue.write(note('a')), queue.write(note('b'))]);
    await settle();
    expect(kept[0]).to.deep.equal(['a']);
    expect(ids(server.events)).to.deep.equal(['start', 'a', 'b']);
    expect(queue.waiting).to.deep.equal([]);
    expect(queue.state).to.equal('sent');
    expect(kept.at(-1)).to.deep.equal([]);
  });

  it('wait while nothing answers, and go once it does; one whose answer was lost counts once', async () => {
    const { queue, server, timers } = bench();
    server.isAway = true;
    await queue.write(note('a'));
    expect(queue.state).to.equal('away');
    expect(ids(queue.all)).to.deep.equal(['start', 'a']);
    server.isAway = false;
    server.losesAnswers = true;
    timers.at(-1)!();
    await settle();
    server.losesAnswers = false;
    timers.at(-1)!();
    await settle();
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'a']);
    expect(ids(queue.all)).to.deep.equal(['start', 'a']);
    expect(queue.state).to.equal('sent');
  });

  it('take in what others wrote meanwhile and tell it', async () => {
    const { queue, server } = bench();
    server.events.push(note('theirs'));
    await queue.write(note('mine'));
    await settle();
    expect(ids(queue.all)).to.deep.equal(['start', 'theirs', 'mine']);
    expect(ids(queue.fromOthers)).to.deep.equal(['theirs']);
    server.events.push(note('later'));
    await queue.news(4);
    expect(ids(queue.all)).to.deep.equal(['start', 'theirs', 'mine', 'later']);
  });

  it('drop only the one that is refused, and say so', async () => {
    const { queue, server } = bench();
    server.refuses.add('b');
    server.isAway = true;
    await queue.write(note('a'), note('b'), note('c'));
    server.isAway = false;
    queue.retry();
    await settle();
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'a', 'c']);
    expect(queue.refusal).to.equal('no');
  });

  it('of an earlier visit are taken up again', async () => {
    const { queue, server } = bench();
    queue.resume([note('left'), note('start')]);
    await settle();
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'left']);
  });
});
