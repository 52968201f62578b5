/** A doubted lot is held with every batch it went into and their sales and labels, and freed in one step. */
import { expect } from 'chai';
import { alongWay, stepOnWay, wayOf } from '../../src/core/batch/way';
import type { Trace } from '../../src/core/records/batch';
import type { IssuedLabel } from '../../src/core/records/wrap';
import type { Holding } from '../../src/core/records/holding';
import { findLot } from '../../src/server/repositories/lots';
import { addIssued } from '../../src/server/repositories/wraps';
import { requireBatch } from '../../src/server/store/batches';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

/** A lot that batches drew from. */
const LOT = 'lot-olive-1';
const ROUTES = {
  hold: () => import('../../src/pages/api/v1/lots/[lot]/hold'),
  trace: () => import('../../src/pages/api/v1/lots/[lot]/trace'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  issued: () => import('../../src/pages/api/v1/products/[id]/issued'),
  jobs: () => import('../../src/pages/api/v1/printer/jobs'),
  label: () => import('../../src/pages/api/v1/labels/[id]'),
};

interface Refusal {
  errors: { path: string; code: string; message: string }[];
}

async function go<T = unknown>(route: keyof typeof ROUTES, body: unknown, params: Record<string, string>) {
  const method = body === undefined ? 'GET' : 'POST';
  const init = body === undefined ? {} : sending(JSON.stringify(body));
  const answer = await call(ROUTES[route]() as never, method, '/api/v1/x', init, params);
  return { status: answer.status, body: answer.body as T & Refusal };
}

describe('holding a lot', () => {
  const demo = useDemo();
  const hold = (isHeld: boolean, reason: string, lot = LOT) =>
    go<Holding>('hold', { isHeld, reason, by: 'Marit' }, { lot });
  const quarantines = async (id: string) => (await requireBatch(demo.house, id)).batch.quarantines;

  it('holds the lot, its batches, their sales and labels in one step, and frees them in one', async () => {
    const before = (await go<Holding>('hold', undefined, { lot: LOT })).body;
    const here = before.batches.filter(({ isPast }) => !isPast);
    const elsewhere = here.filter(({ isHeld }) => isHeld).map(({ id }) => id);
    const sellable = here.find(({ left, isHeld }) => left > 0 && !isHeld)!;
    expect(before.lot.quarantine).to.equal(null);
    expect(here.length).to.be.above(2);

    const held = await hold(true, 'Smells of paint.');
    expect(held.status).to.equal(200);
    expect((await findLot(demo.db, LOT))!.quarantine).to.equal('Smells of paint.');
    expect(held.body.batches.filter(({ isPast }) => !isPast).every(({ isHeld }) => isHeld)).to.equal(true);
    for (const { id, isPast } of held.body.batches) {
      const reasons = (await quarantines(id)).map(({ reason }) => reason);
      expect(
        reasons.some((one) => one.endsWith('is held: Smells of paint.')),
        id,
      ).to.equal(!isPast);
    }
    // Twice makes no second quarantine.
    const once = (await quarantines(sellable.id)).length;
    expect((await hold(true, 'Again.')).status).to.equal(200);
    expect((await quarantines(sellable.id)).length).to.equal(once);

    const sale = {
      ...{ id: 'hold-sale', type: 'moved', at: `${DAY}T10:00:00Z`, by: null, bars: 1, how: 'sale' },
      ...{ to: 'Stall', market: 'EU', note: null },
    };
    const refused = await go('events', { events: [sale] }, { id: sellable.id });
    expect([refused.status, refused.body.errors[0]!.message]).to.deep.equal([
      422,
      'It is in quarantine: nothing of it is sold. Decide first.',
    ]);
    const { product } = (await requireBatch(demo.house, sellable.id)).batch;
    const label = await go('issued', { market: 'EU', batch: sellable.id }, { id: product });
    expect([label.status, label.body.errors[0]!.code]).to.deep.equal([422, 'held']);

    // A label that was issued before prints as it was, once; none is printed for bars that wait.
    const early = {
      id: 'early-label',
      productId: product,
      market: 'EU',
      issuedOn: DAY,
      batchCode: sellable.code,
    };
    await addIssued(demo.db, early as IssuedLabel, new Uint8Array([1]));
    const toPrinter = () => go('jobs', { label: early.id, copies: 3 }, {});
    const printed = await toPrinter();
    expect([printed.status, printed.body.errors[0]!.code]).to.deep.equal([422, 'held']);
    expect(printed.body.errors[0]!.message).to.include(`Batch ${sellable.code} is in quarantine.`);
    expect((await go('label', undefined, { id: early.id })).status).to.equal(200);

    const freed = await hold(false, 'The smell was the shelf.');
    expect([freed.status, freed.body.lot.quarantine]).to.deep.equal([200, null]);
    const open = (await quarantines(sellable.id)).filter(({ decision }) => decision === null);
    expect(open).to.deep.equal([]);
    expect((await quarantines(sellable.id)).at(-1)!.why).to.equal('The smell was the shelf.');
    expect((await toPrinter()).status).to.equal(201);
    // What was held for something else besides stays held.
    expect(freed.body.batches.filter(({ isHeld }) => isHeld).map(({ id }) => id)).to.deep.equal(elsewhere);
    expect((await go('events', { events: [sale] }, { id: sellable.id })).status).to.equal(200);
  });

  it('refuses an unknown lot, a reason that is none, and to free what is not held', async () => {
    expect((await hold(true, 'x', 'no-such-lot')).status).to.equal(404);
    expect((await hold(true, ' ')).body.errors[0]!.path).to.equal('reason');
    expect((await hold(false, 'x')).body.errors[0]!.code).to.equal('not-held');
  });

  it('draws the way from supplier to buyer, each once, and walks it by keys', async () => {
    const { body } = await go<Trace>('trace', undefined, { lot: LOT });
    const way = wayOf(body);
    const ids = way.nodes.map(({ id }) => id);
    expect(new Set(ids).size).to.equal(ids.length);
    for (const [from, to] of way.links) expect(ids).to.include.members([from, to]);
    const lot = `lot ${LOT}`;
    const batch = stepOnWay(way, lot, 'ArrowRight')!;
    expect([batch.split(' ')[0], stepOnWay(way, batch, 'ArrowLeft')]).to.deep.equal(['batch', lot]);
    expect(stepOnWay(way, lot, 'ArrowUp')).to.equal(null);
    const along = alongWay(way, batch);
    expect(along.has(lot)).to.equal(true);
    // Neither another batch nor bars of another one lie along the way of this one.
    const others = [...along].filter((id) => /^(?:batch|bars) /.test(id));
    expect(others.every((id) => id.endsWith(batch.split(' ')[1]!))).to.equal(true);
  });
});
