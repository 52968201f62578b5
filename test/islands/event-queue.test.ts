/** The bench's events: kept first, sent in order, told of others, and never lost. */
import { expect } from 'chai';
import type { BatchEvent } from '../../src/core/batch/types';
import { EventQueue, type EventOutcome, type EventSetting } from '../../src/ui/event-queue';
import { outcomeOf } from '../../src/ui/writing';

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
    says: null as string | null,
  };
  const kept: string[][] = [];
  const browser = new Set<string>();
  const timers: (() => void)[] = [];
  const send = (after: number, events: readonly BatchEvent[]): Promise<EventOutcome> => {
    server.requests++;
    if (after > server.events.length) return Promise.resolve({ outcome: 'ahead' });
    if (server.isAway) return Promise.resolve({ outcome: 'silent', why: server.says });
    const fresh = events.filter(({ id }) => !ids(server.events).includes(id));
    if (after < server.events.length && fresh.length > 0)
      return Promise.resolve({
        outcome: 'behind',
        seq: server.events.length,
        events: server.events.slice(after),
      });
    const at = fresh.findIndex(({ id }) => server.refuses.has(id));
    if (at >= 0)
      return Promise.resolve({
        outcome: 'refused',
        at: events.indexOf(fresh[at]!),
        code: 'lot-short',
        message: 'no',
      });
    server.events.push(...fresh);
    return Promise.resolve(
      server.losesAnswers
        ? { outcome: 'silent', why: null }
        : { outcome: 'taken', seq: server.events.length },
    );
  };
  const setting: EventSetting = {
    batch: 'b',
    known: [...known],
    send,
    fetchAll: () => Promise.resolve(server.isAway ? null : [...server.events]),
    keep: ({ waiting, aside }, gone) => {
      kept.push(ids(waiting));
      for (const id of gone) browser.delete(id);
      for (const event of [...waiting, ...aside.map((one) => one.event)]) browser.add(event.id);
      return Promise.resolve();
    },
    after: (_ms, call) => {
      timers.push(call);
      return () => undefined;
    },
    onChange: () => undefined,
  };
  return { queue: new EventQueue(setting), server, kept, browser, timers, setting };
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

  it('set aside the one that is refused, with why, and keep it until a person has decided', async () => {
    const { queue, server, browser } = bench();
    server.refuses.add('b');
    server.isAway = true;
    await queue.write(note('a'), note('b'), note('c'));
    server.isAway = false;
    queue.retry();
    await settle();
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'a', 'c']);
    expect(queue.aside).to.deep.equal([{ event: note('b'), code: 'lot-short', message: 'no' }]);
    expect([...browser]).to.deep.equal(['b']);
    const later = bench(server.events);
    later.queue.resume({ waiting: [], aside: queue.aside });
    expect(later.queue.aside).to.have.length(1);
    server.refuses.clear();
    await queue.decide('b', note('b'));
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'a', 'c', 'b']);
    expect([queue.aside, [...browser]]).to.deep.equal([[], []]);
  });

  it('wait, and say why, while what the application says is of no event: signed out, not found, too much', async () => {
    const { queue, server, browser, timers } = bench();
    server.isAway = true;
    server.says = 'Sign in first.';
    await queue.write(note('a'), note('b'), note('c'));
    expect([queue.state, queue.why]).to.deep.equal(['away', 'Sign in first.']);
    expect([...browser]).to.deep.equal(['a', 'b', 'c']);
    server.isAway = false;
    timers.at(-1)!();
    await settle();
    await settle();
    expect([queue.state, queue.why, queue.aside]).to.deep.equal(['sent', null, []]);
    expect(ids(server.events)).to.deep.equal(['start', 'a', 'b', 'c']);
  });

  it('go on with a file that went back to a backup, and ask about what it no longer holds', async () => {
    const { queue, server } = bench();
    await queue.write(note('a'), note('b'));
    server.events.length = 2;
    await queue.write(note('c'));
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'a', 'c']);
    expect(queue.aside.map(({ event, code }) => [event.id, code])).to.deep.equal([['b', 'lost']]);
  });

  it('hear of what others wrote while something was sent', async () => {
    const { queue, server, setting } = bench();
    const send = setting.send;
    setting.send = async (after, events) => {
      const answer = await send(after, events);
      server.events.push(note('theirs'));
      await queue.news(3);
      return answer;
    };
    await queue.write(note('a'));
    await settle();
    expect(ids(queue.all)).to.deep.equal(['start', 'a', 'theirs']);
  });

  it('are refused only where a fault names one of them', () => {
    const fault = (path: string, code = 'x') => [{ path, code, message: 'no' }];
    const said = (status: number, path: string, code?: string) =>
      outcomeOf({ ok: false, status, faults: fault(path, code) }).outcome;
    expect(said(422, 'events.2.lot')).to.equal('refused');
    expect(said(403, 'events.0.type')).to.equal('refused');
    expect(said(422, 'after', 'ahead')).to.equal('ahead');
    for (const status of [400, 401, 403, 404, 409, 413, 415, 422, 429, 500, 503, 507])
      expect(said(status, ''), `${status}`).to.equal('silent');
    expect(outcomeOf({ ok: true, status: 409, body: { seq: 3 } })).to.include({ outcome: 'silent' });
    expect(outcomeOf({ ok: false, status: 0, faults: fault('') })).to.deep.equal({
      outcome: 'silent',
      why: null,
    });
  });

  it('of an earlier visit are taken up again', async () => {
    const { queue, server } = bench();
    queue.resume({ waiting: [note('left'), note('start')], aside: [] });
    await settle();
    await settle();
    expect(ids(server.events)).to.deep.equal(['start', 'left']);
  });
});
