/** Complaints: found by the code on a bar, told in time where they are serious, seen where they belong. */
import { expect } from 'chai';
import { termsOf, type Complaint, type DueTerm } from '../../src/core/records/complaints';
import { TELLINGS } from '../../src/rulebook/telling';
import { batchesAt, listBatches } from '../../src/server/store/batches';
import { traceBatch } from '../../src/server/store/trace';
import { listTasks } from '../../src/server/services/watch/tasks';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({
  all: () => import('../../src/pages/api/v1/complaints'),
  one: () => import('../../src/pages/api/v1/complaints/[id]'),
});
type Told = Complaint & { terms: DueTerm[]; errors: { path: string; code: string }[] };

const STATED = {
  ...{ heardOn: DAY, code: null, product: null, market: null, kind: 'quality', gravity: 'slight' },
  ...{ what: 'It cracked.', who: '', done: '', closedOn: null },
};

describe('complaints', () => {
  const demo = useDemo();
  const write = (more: object) => go<Told>('all', 'POST', { body: { ...STATED, ...more } });

  it('find their batch by what stands on the bar, and ask where it says nothing', async () => {
    const [batch] = await batchesAt(
      demo.house,
      new Set((await listBatches(demo.house, { state: 'released', product: null })).map(({ id }) => id)),
    );
    for (const code of [batch!.code, `${batch!.code}/7`]) {
      const { status, body } = await write({ code });
      expect(status).to.equal(201);
      expect([body.batch, body.product, body.batchCode]).to.deep.equal([
        batch!.id,
        batch!.product,
        batch!.code,
      ]);
    }
    expect(
      (await traceBatch(demo.house, batch!.id)).batches.find(({ id }) => id === batch!.id)!.complaints,
    ).to.deep.equal({
      all: 2,
      open: 2,
    });
    for (const [stated, path, code] of [
      [{}, 'code', 'unknown-code'],
      [{ code: 'XX-1' }, 'product', 'unknown-code'],
      [
        { code: batch!.code, product: batch!.product === 'first-light' ? 'night-mail' : 'first-light' },
        'product',
        'two-bars',
      ],
      [{ product: 'no-such-bar' }, 'product', 'unknown-product'],
      [{ product: 'first-light', what: ' ' }, 'what', 'name-required'],
    ] as const) {
      const refused = await write(stated);
      expect([refused.status, refused.body.errors[0]!.path], JSON.stringify(stated)).to.deep.equal([
        422,
        path,
      ]);
      if (code !== 'name-required') expect(refused.body.errors[0]!.code).to.equal(code);
    }
    const kept = await write({ code: 'XX-1', product: 'first-light' });
    expect([kept.body.batch, kept.body.code, kept.body.productName]).to.deep.equal([
      null,
      'XX-1',
      'First Light',
    ]);
  });

  it('that are serious make a task for each term where it happened, once', async () => {
    const tasks = async () =>
      (await listTasks(demo.house)).filter(({ words }) => words.includes('a serious effect'));
    const first = await write({ product: 'first-light', market: 'EU', kind: 'effect', gravity: 'moderate' });
    expect(first.body.terms).to.deep.equal([]);
    expect(await tasks()).to.have.length(0);
    const grave = { ...STATED, product: 'first-light', market: 'EU', kind: 'effect', gravity: 'serious' };
    const change = (revision: number, more: object = {}) =>
      go<{ complaint: Told; stale: Told }>('one', 'PUT', {
        params: { id: first.body.id },
        body: { ...grave, ...more, revision },
      });
    expect((await change(1)).body.complaint.terms.map(({ dueOn }) => dueOn)).to.deep.equal(['2026-12-14']);
    expect((await tasks()).map(({ dueOn, market }) => [dueOn, market])).to.deep.equal([['2026-12-14', 'EU']]);
    expect((await change(1)).status).to.equal(409);
    expect((await change(2, { done: 'Told them.', closedOn: DAY })).status).to.equal(200);
    expect(await tasks()).to.have.length(1);
    expect((await change(3, { market: null, closedOn: DAY })).status).to.equal(200);
    expect(await tasks()).to.have.length(TELLINGS.length);
    const listed = await go<{ complaints: Told[] }>('all', 'GET', { query: '?product=first-light' });
    expect(listed.body.complaints.find(({ id }) => id === first.body.id)).to.include({
      revision: 4,
      closedOn: DAY,
    });
    const gone = await go('one', 'PUT', { params: { id: 'none' }, body: { ...grave, revision: 1 } });
    expect(gone.status).to.equal(404);
  });

  it('count working days where a law does, over the weekend', () => {
    const of = (heardOn: string) =>
      termsOf({ kind: 'effect', gravity: 'serious', market: 'US', heardOn }, TELLINGS).map(
        ({ dueOn }) => dueOn,
      );
    // A Tuesday, and a Friday: fifteen working days are three weeks.
    expect(of('2026-12-01')).to.deep.equal(['2026-12-22', '2026-12-02']);
    expect(of('2026-12-04')).to.deep.equal(['2026-12-25', '2026-12-05']);
    expect(of('2026-12-05')[0]).to.equal('2026-12-25');
  });
});
