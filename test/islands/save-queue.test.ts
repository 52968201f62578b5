/** Saving under the hands: in order, once each, tried again, and never lost. */
import { expect } from 'chai';
import fc from 'fast-check';
import {
  ASIDE_MS,
  PAUSES_MS,
  REST_MS,
  SaveQueue,
  type LaidAside,
  type OnFile,
  type SaveOutcome,
} from '../../src/ui/save-queue';

/** A clock that is moved by hand. */
class Clock {
  at = 0;
  private waiting: { at: number; call: () => void }[] = [];
  after = (ms: number, call: () => void) => {
    const entry = { at: this.at + ms, call };
    this.waiting.push(entry);
    return () => {
      this.waiting = this.waiting.filter((one) => one !== entry);
    };
  };
  async pass(ms: number): Promise<void> {
    const until = this.at + ms;
    for (;;) {
      await settle();
      const next = [...this.waiting].sort((a, b) => a.at - b.at)[0];
      if (!next || next.at > until) break;
      this.at = next.at;
      this.waiting = this.waiting.filter((one) => one !== next);
      next.call();
    }
    this.at = until;
    await settle();
  }
}

const settle = async () => {
  for (let turn = 0; turn < 20; turn++) await Promise.resolve();
};

/** A file behind a server that answers as slowly, or not at all, as is wanted. */
class Server {
  file: OnFile<string> = { revision: 1, savedAt: 'then', value: 'a' };
  sent: { revision: number; value: string }[] = [];
  isAway = false;
  losesAnswers = false;
  slowMs = 0;
  most = 0;
  private under = 0;
  constructor(private readonly clock: Clock) {}

  send = async (revision: number, value: string): Promise<SaveOutcome<string>> => {
    this.sent.push({ revision, value });
    this.under++;
    this.most = Math.max(this.most, this.under);
    if (this.slowMs > 0) await new Promise<void>((done) => this.clock.after(this.slowMs, done));
    this.under--;
    if (this.isAway) return { outcome: 'silent', message: null };
    if (value === 'bad') return { outcome: 'refused', message: 'It does not reckon.' };
    if (revision !== this.file.revision) return { outcome: 'stale', newer: this.file };
    this.file = { revision: revision + 1, savedAt: `r${revision + 1}`, value };
    return this.losesAnswers ? { outcome: 'silent', message: null } : { outcome: 'saved', saved: this.file };
  };
}

function table() {
  const clock = new Clock();
  const server = new Server(clock);
  const held = { aside: null as LaidAside<string> | null };
  const queue = new SaveQueue<string>({
    loaded: server.file,
    send: server.send,
    aside: {
      put: async (entry) => void (held.aside = entry),
      drop: async () => void (held.aside = null),
    },
    after: clock.after,
    now: () => String(clock.at),
    onChange: () => undefined,
  });
  return { clock, server, queue, held };
}

describe('saving under the hands', () => {
  it('sends the last change once the hands rest, and nothing that is back as it was', async () => {
    const { clock, server, queue } = table();
    for (const value of ['b', 'bc', 'bcd']) {
      queue.set(value, true);
      await clock.pass(REST_MS / 2);
    }
    expect(server.sent).to.deep.equal([]);
    expect(queue.state.state).to.equal('waiting');
    await clock.pass(REST_MS);
    expect(server.sent).to.deep.equal([{ revision: 1, value: 'bcd' }]);
    expect(queue.state).to.deep.equal({ state: 'saved', at: 'r2' });
    queue.set('x', true);
    queue.set('bcd', true);
    await clock.pass(10 * REST_MS);
    expect(server.sent).to.have.length(1);
    expect(queue.state.state).to.equal('saved');
  });

  it('a flush waits for the save under way, also where it was taken back meanwhile to what stood on file', async () => {
    const { clock, server, queue } = table();
    server.slowMs = 400;
    queue.set('b', true);
    await clock.pass(REST_MS + 100);
    queue.set('a', true);
    expect(queue.leave(), 'on the way out').to.deep.equal({ revision: 2, value: 'a' });
    let done: boolean | null = null;
    void queue.flush().then((isOnFile) => (done = isOnFile));
    await settle();
    expect(done, 'before the first save has come back').to.equal(null);
    await clock.pass(2000);
    expect(done).to.equal(true);
    expect(server.file.value).to.equal('a');
  });

  it('two flushes that wait on one slow save send each change once, each from the newest revision', async () => {
    const { clock, server, queue } = table();
    server.slowMs = 1000;
    queue.set('b', true);
    await clock.pass(REST_MS);
    queue.set('c', true);
    const both = Promise.all([queue.flush(), queue.flush()]);
    await clock.pass(5000);
    expect(await both).to.deep.equal([true, true]);
    expect(server.sent).to.deep.equal([
      { revision: 1, value: 'b' },
      { revision: 2, value: 'c' },
    ]);
    expect(queue.state.state).to.equal('saved');
  });

  it('tries again with growing pauses while nobody answers, says so, and saves when somebody does', async () => {
    const { clock, server, queue, held } = table();
    server.isAway = true;
    queue.set('b', true);
    await clock.pass(REST_MS);
    for (const pause of PAUSES_MS) {
      expect(queue.state).to.deep.equal({ state: 'away', againInMs: pause, message: null });
      await clock.pass(pause);
    }
    expect(server.sent).to.have.length(PAUSES_MS.length + 1);
    queue.set('c', true);
    await clock.pass(ASIDE_MS);
    expect(held.aside).to.deep.include({ revision: 1, value: 'c' });
    server.isAway = false;
    await clock.pass(PAUSES_MS.at(-1)!);
    expect(server.file.value).to.equal('c');
    expect(queue.state.state).to.equal('saved');
    expect(held.aside).to.equal(null);
  });

  it('knows its own save again whose answer was lost, and asks only about another’s', async () => {
    const { clock, server, queue } = table();
    server.losesAnswers = true;
    queue.set('b', true);
    await clock.pass(REST_MS);
    expect(queue.state.state).to.equal('away');
    server.losesAnswers = false;
    await clock.pass(PAUSES_MS[0]);
    expect(queue.state).to.deep.include({ state: 'saved' });
    expect(queue.onFile.revision).to.equal(2);
    server.file = { revision: 9, savedAt: 'r9', value: 'theirs' };
    queue.set('mine', true);
    await clock.pass(REST_MS);
    expect(queue.state).to.deep.equal({ state: 'stale', newer: server.file });
    await clock.pass(60_000);
    expect(server.file.value).to.equal('theirs');
    queue.carryOnFrom(server.file);
    await clock.pass(REST_MS);
    expect(server.file.value).to.equal('mine');
  });

  it('does not send what cannot be saved, keeps it aside, and sends again what was refused once it changes', async () => {
    const { clock, server, queue, held } = table();
    queue.set('half read', false);
    await clock.pass(5000);
    expect(server.sent).to.deep.equal([]);
    expect(held.aside!.value).to.equal('half read');
    expect(await queue.flush()).to.equal(false);
    queue.set('bad', true);
    await clock.pass(REST_MS);
    expect(queue.state).to.deep.equal({ state: 'failed', message: 'It does not reckon.' });
    await clock.pass(60_000);
    expect(server.sent).to.have.length(1);
    queue.set('good', true);
    await clock.pass(REST_MS);
    expect(queue.state.state).to.equal('saved');
  });

  it('gives the last change on the way out, also while a save is under way', async () => {
    const { clock, server, queue, held } = table();
    expect(queue.leave()).to.equal(null);
    server.slowMs = 1000;
    queue.set('b', true);
    expect(queue.leave()).to.deep.equal({ revision: 1, value: 'b' });
    await clock.pass(REST_MS);
    queue.set('c', true);
    expect(queue.leave()).to.deep.equal({ revision: 2, value: 'c' });
    expect(held.aside!.value).to.equal('c');
  });

  it('sends what stood on file before where a save in between was never answered: that one may stand there now', async () => {
    for (const outcome of [{ losesAnswers: true }, { isAway: true }]) {
      const { clock, server, queue, held } = table();
      Object.assign(server, outcome);
      queue.set('b', true);
      await clock.pass(REST_MS);
      queue.set('a', true);
      expect(queue.state.state).to.equal('away');
      Object.assign(server, { isAway: false, losesAnswers: false });
      await clock.pass(10 * PAUSES_MS[0]);
      expect([server.file.value, queue.state.state, held.aside]).to.deep.equal(['a', 'saved', null]);
    }
  });

  it('whatever happens, ends with the last change on file or aside, one request at a time', async () => {
    const step = fc.oneof(
      fc.record({ type: fc.constant('set' as const), value: fc.constantFrom('b', 'c', 'd', 'e') }),
      fc.record({ type: fc.constant('pass' as const), ms: fc.integer({ min: 1, max: 3000 }) }),
      fc.record({
        type: fc.constantFrom('away' as const, 'back' as const, 'lose' as const, 'flush' as const),
      }),
      fc.record({ type: fc.constant('slow' as const), ms: fc.integer({ min: 0, max: 2000 }) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 25 }), async (steps) => {
        const { clock, server, queue, held } = table();
        let last = 'a';
        for (const one of steps) {
          if (one.type === 'set') queue.set((last = one.value), true);
          else if (one.type === 'pass') await clock.pass(one.ms);
          else if (one.type === 'slow') server.slowMs = one.ms;
          else if (one.type === 'flush') void queue.flush();
          else Object.assign(server, { isAway: one.type === 'away', losesAnswers: one.type === 'lose' });
        }
        await clock.pass(ASIDE_MS);
        if (server.file.value !== last) expect(held.aside?.value).to.equal(last);
        Object.assign(server, { isAway: false, losesAnswers: false });
        await clock.pass(120_000);
        expect(server.file.value).to.equal(last);
        expect(queue.state.state).to.equal('saved');
        expect(held.aside).to.equal(null);
        expect(server.most).to.be.at.most(1);
      }),
      { numRuns: 300 },
    );
  });
});
