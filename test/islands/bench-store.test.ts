/** What a bench keeps before its browser's database has it: here there is no database at all. */
import { expect } from 'chai';
import type { BatchEvent } from '../../src/core/batch/types';
import { keepEvents, keptBatches, keptEvents } from '../../src/ui/bench-store';

const done = (id: string) =>
  ({ id, type: 'stepDone', at: '2026-11-24T10:00:00.000Z', step: id }) as BatchEvent;

/** The browser's small store, as far as it is used. */
function smallStore(most = Infinity) {
  const kept = new Map<string, string>();
  return {
    get length() {
      return kept.size;
    },
    key: (at: number) => [...kept.keys()][at] ?? null,
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (kept.size >= most) throw new Error('There is no room.');
      kept.set(key, value);
    },
    removeItem: (key: string) => kept.delete(key),
  };
}

const within = (store: unknown) =>
  Object.defineProperty(globalThis, 'localStorage', { value: store, configurable: true });

/** What a call leaves behind, whether the database is there or not. */
const called = (call: Promise<unknown>) => call.catch(() => undefined);

describe('what is written down at a bench before the browser’s database has it', () => {
  beforeEach(() => within(smallStore()));
  after(() => Reflect.deleteProperty(globalThis, 'localStorage'));

  it('is there in the same breath, in the order of writing, with what was set aside', async () => {
    const aside = { event: done('c'), code: 'late', message: 'It is over.' };
    void called(keepEvents('one', { waiting: [done('b'), done('a')], aside: [aside] }, []));
    expect(await keptEvents('one')).to.deep.equal({ waiting: [done('b'), done('a')], aside: [aside] });
  });

  it('is told by batch, and no batch takes another’s for its own', async () => {
    await called(keepEvents('one', { waiting: [done('a')], aside: [] }, []));
    await called(keepEvents('one-more', { waiting: [done('b')], aside: [] }, []));
    expect(await keptBatches()).to.have.members(['one', 'one-more']);
    expect((await keptEvents('one')).waiting.map(({ id }) => id)).to.deep.equal(['a']);
  });

  it('goes once it is on file, and stays where only another is', async () => {
    await called(keepEvents('one', { waiting: [done('a'), done('b')], aside: [] }, []));
    await called(keepEvents('one', { waiting: [done('b')], aside: [] }, ['a']));
    expect((await keptEvents('one')).waiting.map(({ id }) => id)).to.deep.equal(['b']);
    await called(keepEvents('one', { waiting: [], aside: [] }, ['b']));
    expect(await keptBatches()).to.deep.equal([]);
  });

  it('is nothing where the browser keeps nothing, and nobody is stopped by that', async () => {
    within(smallStore(0));
    await called(keepEvents('one', { waiting: [done('a')], aside: [] }, []));
    expect(await keptEvents('one')).to.deep.equal({ waiting: [], aside: [] });
  });
});
