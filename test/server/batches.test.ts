/** Batches over HTTP: begun, weighed, poured, refused, quarantined, traced; and the ledger that follows. */
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import type { BatchEvent } from '../../src/core/batch/types';
import type { Batch } from '../../src/core/batch/types';
import type { RunSheet } from '../../src/core/making/run-sheet-types';
import { DATABASE_FILE } from '../../src/server/database';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const routes = {
  batches: () => import('../../src/pages/api/v1/batches'),
  batch: () => import('../../src/pages/api/v1/batches/[id]'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  assessment: () => import('../../src/pages/api/v1/batches/[id]/assessment'),
  batchTrace: () => import('../../src/pages/api/v1/batches/[id]/trace'),
  trace: () => import('../../src/pages/api/v1/trace'),
  lot: () => import('../../src/pages/api/v1/lots/[lot]'),
  lotTrace: () => import('../../src/pages/api/v1/lots/[lot]/trace'),
  assess: () => import('../../src/pages/api/v1/assess'),
  material: () => import('../../src/pages/api/v1/materials/[id]'),
  materials: () => import('../../src/pages/api/v1/materials'),
  lots: () => import('../../src/pages/api/v1/materials/[id]/lots'),
  preview: () => import('../../src/pages/api/v1/products/[id]/label/preview'),
  issued: () => import('../../src/pages/api/v1/products/[id]/issued'),
};
type Route = Parameters<typeof call>[0];
const go = async (route: keyof typeof routes, method: string, params = {}, body?: unknown, query = '') => {
  const { status, body: answer } = await call(
    routes[route]() as unknown as Route,
    method,
    `/api/v1/x${query}`,
    body === undefined ? {} : sending(JSON.stringify(body)),
    params,
  );
  return { status, body: answer as Record<string, unknown> };
};

let count = 0;
const AT = `${DAY}T09:00:00+01:00`;
const event = (type: string, more: object): BatchEvent =>
  ({ id: `e${++count}`, type, at: AT, by: 'Oona', ...more }) as unknown as BatchEvent;
const weighed = (line: string, massG: number, more: object = {}) =>
  event('weighed', { line, massG, readabilityG: 0.1, how: 'scale', ...more });

interface Begun {
  id: string;
  code: string;
  seq: number;
  sheet: RunSheet;
  batch: Batch;
}

async function begin(product: string, more: object = {}): Promise<Begun> {
  const { status, body } = await go(
    'batches',
    'POST',
    {},
    { product, size: { fatsMassG: 1000 }, by: 'Oona', ...more },
  );
  expect(status, JSON.stringify(body)).to.equal(201);
  return body as unknown as Begun;
}

const send = (id: string, events: BatchEvent[], after?: number) =>
  go('events', 'POST', { id }, { events, ...(after === undefined ? {} : { after }) });

async function sound(id: string, events: BatchEvent[]): Promise<{ seq: number; batch: Batch }> {
  const { status, body } = await send(id, events);
  expect(status, JSON.stringify(body)).to.equal(200);
  return body as unknown as { seq: number; batch: Batch };
}

async function refusedWith(id: string, events: BatchEvent[]): Promise<string[]> {
  const { status, body } = await send(id, events);
  expect(status, JSON.stringify(body)).to.equal(422);
  return (body.errors as { path: string; code: string }[]).map(({ path, code }) => `${path} ${code}`);
}

/** Every line weighed as planned, but for what is said otherwise. */
const asPlanned = ({ sheet }: Begun, other: Record<string, number> = {}) =>
  sheet.steps
    .flatMap(({ weigh }) => weigh)
    .map(({ line, massG, portion }) => weighed(line, other[line] ?? massG, portion ? { portion } : {}));

describe('batches', () => {
  const demo = useDemo();

  it('freezes what is planned, and stands as planned until something is weighed', async () => {
    const begun = await begin('first-light');
    expect(begun.code).to.match(/^FL-261124/);
    expect(begun.sheet.fatsG).to.be.closeTo(1000, 1e-6);
    const { status, body } = await go('assessment', 'GET', { id: begun.id });
    expect(status).to.equal(200);
    const { assessment, request } = body as {
      assessment: { verdict: string; masses: { pourG: number } };
      request: object;
    };
    expect(assessment.masses.pourG).to.be.closeTo(begun.sheet.pourG, 1e-6);
    const again = await go('assess', 'POST', {}, request);
    expect(again.body).to.deep.equal(assessment);
  });

  it('answers for what was weighed: overshoot, skipped lines, doubt of the scale and of a spoon', async () => {
    const begun = await begin('first-light');
    const scent = begun.sheet.formula.lines.find(({ material }) => material === 'fennel-oil')!;
    const oat = begun.sheet.formula.lines.find(({ material }) => material === 'oat-flour')!;
    const events = asPlanned(begun).filter(
      (one) => !('line' in one) || (one.line !== scent.id && one.line !== oat.id),
    );
    const half = weighed(scent.id, 4);
    await sound(begun.id, [...events, half, weighed(scent.id, 5.5)]);
    await sound(begun.id, [
      event('guessed', { line: oat.id, massG: 20, how: 'spoon' }),
      event('corrected', { event: half.id, massG: 4.5, reason: 'Read the wrong way round' }),
      event('poured', { moulds: [{ id: 'long-block', count: 1 }], leftoverG: 30 }),
    ]);
    const { body } = await go('assessment', 'GET', { id: begun.id });
    const { request, today } = body as unknown as {
      request: {
        formula: {
          lines: { id: string; amount: { value: number }; uncertaintyPct?: number; measuredBy?: string }[];
          alkali: object;
        };
      };
      today: { onDate: string };
    };
    const line = (id: string) => request.formula.lines.find((one) => one.id === id);
    expect(line(scent.id)!.amount.value).to.be.closeTo(10, 1e-9);
    expect(line(scent.id)!.uncertaintyPct).to.be.closeTo(2, 1e-9);
    expect(line(oat.id)).to.include({ measuredBy: 'spoon' });
    expect(today.onDate).to.equal(DAY);
    const lone = await begin('first-light');
    const water = lone.sheet.formula.lines.find(({ stage }) => stage === 'liquid')!;
    await sound(lone.id, [
      event('skipped', { line: water.id, reason: 'none there' }),
      event('poured', { moulds: [], leftoverG: 0 }),
    ]);
    const left = await go('assessment', 'GET', { id: lone.id });
    expect(left.status).to.equal(422);
  });

  it('draws stock with the event, evens out a correction, and says why a lot is not to be taken', async () => {
    const begun = await begin('first-light');
    const olive = begun.sheet.formula.lines.find(({ material }) => material === 'olive')!;
    const { body: cupboard } = await go('material', 'GET', { id: 'olive' });
    const [lot] = cupboard.lots as { id: string; leftG: number }[];
    const leftOf = async () => ((await go('lot', 'GET', { lot: lot!.id })).body as { leftG: number }).leftG;
    const before = await leftOf();
    expect(before).to.equal(lot!.leftG);
    const taken = weighed(olive.id, 400, { lot: lot!.id });
    await sound(begun.id, [taken]);
    expect(await leftOf()).to.be.closeTo(before - 400, 1e-9);
    await sound(begun.id, [taken]);
    expect(await leftOf()).to.be.closeTo(before - 400, 1e-9);
    await sound(begun.id, [event('corrected', { event: taken.id, massG: 380, reason: 'tare' })]);
    expect(await leftOf()).to.be.closeTo(before - 380, 1e-9);
    expect(await refusedWith(begun.id, [weighed(olive.id, 1, { lot: 'none' })])).to.deep.equal([
      'events.0.lot unknown-lot',
    ]);
    const much = weighed(olive.id, 1e6, { lot: lot!.id });
    expect(await refusedWith(begun.id, [weighed(olive.id, 5), much])).to.deep.equal([
      'events.1.lot lot-short',
    ]);
    expect((await go('batch', 'GET', { id: begun.id })).body.seq).to.equal(3);
    await sound(begun.id, [weighed(olive.id, 1e6, { lot: lot!.id, despite: 'The ledger is wrong' })]);
    const { movements } = (await go('lot', 'GET', { lot: lot!.id })).body as unknown as {
      movements: { massG: number; batch: string | null; event: string | null; reason: string | null }[];
    };
    expect(movements.at(-1)).to.include({ massG: 1e6, batch: begun.id });
    const sum = movements.reduce((total, { massG }) => total + massG, 0);
    expect(await leftOf()).to.be.closeTo(20000 - sum, 1e-6);
    const late = { ...weighed(olive.id, 5, { lot: lot!.id, despite: null }), at: '2031-01-01T10:00:00Z' };
    expect(await refusedWith(begun.id, [late])).to.deep.equal(['events.0.lot lot-past']);
  });

  it('takes an event once, all of a request or none, and tells who is behind what came since', async () => {
    const begun = await begin('waiting-room');
    const [first, second] = [
      event('noted', { text: 'one', for: 'record' }),
      event('noted', { text: 'two', for: 'record' }),
    ];
    const one = await send(begun.id, [first], 1);
    expect(one.body).to.deep.include({ seq: 2, added: [first.id], known: [] });
    const again = await send(begun.id, [first], 1);
    expect(again.body).to.deep.include({ seq: 2, added: [], known: [first.id] });
    const behind = await send(begun.id, [second], 1);
    expect(behind.status).to.equal(409);
    expect(behind.body).to.deep.equal({ seq: 2, events: [first] });
    const other = await begin('waiting-room');
    expect(await refusedWith(other.id, [first])).to.deep.equal(['events.0.id id-taken']);
    expect(other.code).not.to.equal(begun.code);
    expect((await send('none', [second])).status).to.equal(404);
    expect((await send(begun.id, [second], 99)).status).to.equal(422);
  });

  it('refuses what makes no sense now, and counts bars', async () => {
    const begun = await begin('waiting-room');
    const { id } = begun;
    const cut = event('cut', { bars: 14, seconds: 2, trimmingsG: 40 });
    expect(await refusedWith(id, [cut])).to.deep.equal(['events.0.type not-now']);
    expect(await refusedWith(id, [weighed('nothing', 1)])).to.deep.equal(['events.0.line unknown-line']);
    expect(await refusedWith(id, [{ ...weighed('alkali', 1), at: '2026-02-30T09:00:00Z' }])).to.deep.equal([
      'events.0.at not-a-moment',
    ]);
    const many = Array.from({ length: 101 }, () =>
      event('added', { material: 'kaolin', stage: 'trace', massG: 1, how: 'eye' }),
    );
    expect(await refusedWith(id, many)).to.deep.equal(['events.100.type too-many']);
    expect(await refusedWith(id, [event('started', {})])).to.deep.equal(['events.0.type not-now']);
    expect(await refusedWith(id, [{ ...weighed('alkali', -1) }])).to.deep.equal(['events.0.massG negative']);
    expect(await refusedWith(id, [event('decided', { decision: 'release', reason: '' })])).to.deep.equal([
      'events.0.reason length',
    ]);
    await sound(id, asPlanned(begun));
    await sound(id, [event('poured', { moulds: [], leftoverG: 0 })]);
    expect(await refusedWith(id, [weighed(begun.sheet.formula.lines[0]!.id, 1)])).to.deep.equal([
      'events.0.type not-now',
    ]);
    const top = begun.sheet.formula.lines.find(({ stage }) => stage === 'top')!;
    await sound(id, [weighed(top.id, 1), cut]);
    expect(await refusedWith(id, [event('moved', { bars: 1, how: 'sale' })])).to.deep.equal([
      'events.0.how not-released',
    ]);
    expect(
      await refusedWith(id, [event('released', { bars: 13, netMassG: 86, markets: ['EU'] })]),
    ).to.deep.equal(['events.0.bars not-enough-bars']);
    const { batch } = await sound(id, [
      event('barWeighed', { bar: '1', massG: 98.2, readabilityG: 0.1 }),
      event('released', { bars: 12, netMassG: 86, markets: ['EU'] }),
      event('moved', { bars: 8, how: 'sale', to: 'Saturday market' }),
    ]);
    expect(batch).to.deep.include({ state: 'released', bars: { good: 12, released: 12, gone: 8, left: 4 } });
    expect(await refusedWith(id, [event('moved', { bars: 5, how: 'sale' })])).to.deep.equal([
      'events.0.bars not-enough-bars',
    ]);
    expect((await sound(id, [event('moved', { bars: 4, how: 'own' })])).batch.state).to.equal('soldOut');
    const listed = await go('batches', 'GET', {}, undefined, '?state=soldOut');
    expect((listed.body.batches as { id: string }[]).map((one) => one.id)).to.include(id);
  });

  it('quarantines by itself what was weighed over a limit, until it is decided in writing', async () => {
    const begun = await begin('night-mail');
    const scent = begun.sheet.formula.lines.find(({ material }) => material === 'coal-and-violets')!;
    await sound(begun.id, asPlanned(begun, { [scent.id]: 75 }));
    const { batch } = await sound(begun.id, [event('poured', { moulds: [], leftoverG: 0 })]);
    expect(batch.isQuarantined).to.equal(true);
    expect(batch.quarantines[0]!.reason).to.contain('Coal & Violets').and.contain('4.5 %');
    const cut = event('cut', { bars: 14, seconds: 0, trimmingsG: 0 });
    await sound(begun.id, [cut]);
    const release = event('released', { bars: 14, netMassG: 86, markets: ['EU'] });
    expect(await refusedWith(begun.id, [release])).to.deep.equal(['events.0.type not-now']);
    const decided = event('decided', { decision: 'discard', reason: 'Not worth the doubt' });
    expect((await sound(begun.id, [decided])).batch.state).to.equal('discarded');
    const quarantined = await go('batches', 'GET', {}, undefined, '?state=quarantined');
    expect((quarantined.body.batches as { id: string }[]).map(({ id }) => id)).not.to.include(begun.id);
  });

  it('traces lots to bars and bars to lots', async () => {
    const begun = await begin('level-crossing');
    const { body: cupboard } = await go('material', 'GET', { id: 'sea-salt-fine' });
    const [lot] = cupboard.lots as { id: string }[];
    const salt = begun.sheet.formula.lines.find(({ material }) => material === 'sea-salt-fine')!;
    await sound(begun.id, [weighed(salt.id, 144, { lot: lot!.id, portion: 'salted' })]);
    const forward = (await go('lotTrace', 'GET', { lot: lot!.id })).body as unknown as {
      batches: { id: string; drawn: object[] }[];
    };
    expect(forward.batches.find(({ id }) => id === begun.id)!.drawn).to.deep.equal([
      { lot: lot!.id, line: salt.id, portion: 'salted', massG: 144 },
    ]);
    const back = (await go('trace', 'GET', {}, undefined, `?code=${begun.code}/7`)).body as unknown as {
      lots: { id: string }[];
    };
    expect(back.lots.map(({ id }) => id)).to.deep.equal([lot!.id]);
    expect((await go('trace', 'GET', {}, undefined, '?code=ZZ-1')).status).to.equal(404);
    expect((await go('batchTrace', 'GET', { id: 'none' })).status).to.equal(404);
  });

  it('makes the label of a batch from what was weighed, and finds it again from the lot', async () => {
    const { body: all } = await go('batches', 'GET', {}, undefined, '?product=night-mail');
    const batches = all.batches as { id: string; code: string; state: string }[];
    const { id, code } = batches.find((one) => one.state === 'curing')!;
    const { wrapData } = await import('../../src/server/services/wrap/desk');
    const planned = await wrapData(demo.house, 'night-mail');
    const weighed = await wrapData(demo.house, 'night-mail', id);
    expect(planned.batch).to.equal(null);
    expect(weighed.batch).to.include({ id, code });
    expect(weighed.batches.map((one) => one.id)).to.include(id);
    const shareOf = (data: typeof planned) =>
      data.assessment.lines.find(
        ({ id: line }) =>
          data.version.formula.lines.find((one) => one.id === line)?.material === 'coal-and-violets',
      )!.pctCured;
    expect(shareOf(weighed)).to.be.above(1.1 * shareOf(planned));
    const preview = await go(
      'preview',
      'POST',
      { id: 'night-mail' },
      { market: 'EU', wrap: planned.stored.wrap, batch: id },
    );
    expect(preview.status, JSON.stringify(preview.body).slice(0, 300)).to.equal(200);
    expect(JSON.stringify(preview.body.content)).to.contain(code).and.not.to.contain('NM-2611');
    const issued = await go('issued', 'POST', { id: 'night-mail' }, { market: 'EU', batch: id });
    expect(issued.status, JSON.stringify(issued.body).slice(0, 300)).to.equal(201);
    expect(issued.body.batchCode).to.equal(code);
    const trace = (await go('batchTrace', 'GET', { id })).body as unknown as {
      batches: { labels: { id: string }[] }[];
    };
    expect(trace.batches[0]!.labels.map((label) => label.id)).to.deep.equal([issued.body.id]);
    const other = await go(
      'preview',
      'POST',
      { id: 'first-light' },
      { market: 'EU', wrap: planned.stored.wrap, batch: id },
    );
    expect(other.status).to.equal(422);
  });

  it('gives its own events ids that no client can take first or run into', async () => {
    const begun = await begin('night-mail');
    const { id } = begun;
    const scent = begun.sheet.formula.lines.find(({ material }) => material === 'coal-and-violets')!;
    await sound(id, asPlanned(begun, { [scent.id]: 75 }));
    const long = (end: string) => `${'x'.repeat(190)}${end}`;
    const note = (own: string) =>
      ({ ...event('noted', { text: 'n', for: 'record' }), id: own }) as BatchEvent;
    await sound(id, [note(`${id}:started`), note(`${id}:over:1`)]);
    await sound(id, [{ ...event('poured', { moulds: [], leftoverG: 0 }), id: long('a') } as BatchEvent]);
    await sound(id, [event('decided', { decision: 'release', reason: 'Not sold' })]);
    const { events } = (await go('batch', 'GET', { id })).body as unknown as {
      events: { id: string; type: string; line?: string }[];
    };
    const scented = events.find(({ line }) => line === scent.id)!.id;
    const again = {
      ...event('corrected', { event: scented, massG: 80, reason: 'read anew' }),
      id: long('b'),
    } as BatchEvent;
    expect((await sound(id, [again])).batch.quarantines).to.have.length(2);
  });

  it('keeps a material whose lots went into a batch, and lets one go whose lots did not', async () => {
    const made = await go(
      'materials',
      'POST',
      {},
      { material: { name: 'Chalk', kind: 'clay' }, supplier: null },
    );
    const material = (made.body.material as { id: string }).id;
    const lot = {
      supplier: '',
      code: 'C1',
      receivedOn: '2026-01-01',
      openedOn: null,
      bestBefore: null,
      quantityG: 500,
      leftG: 300,
      price: null,
    };
    const entry = await go('lots', 'POST', { id: material }, lot);
    const [{ id: lotId }] = entry.body.lots as [{ id: string }];
    const begun = await begin('first-light');
    const extra = event('added', { material, stage: 'trace', massG: 20, how: 'eye', lot: lotId });
    await sound(begun.id, [extra]);
    const refused = await go('material', 'DELETE', { id: material });
    expect(refused.status).to.equal(422);
    expect((refused.body.errors as { code: string }[])[0]!.code).to.equal('in-use');
    const other = await go(
      'materials',
      'POST',
      {},
      { material: { name: 'Other chalk', kind: 'clay' }, supplier: null },
    );
    const otherId = (other.body.material as { id: string }).id;
    await go('lots', 'POST', { id: otherId }, lot);
    expect((await go('material', 'DELETE', { id: otherId })).status).to.be.oneOf([200, 204]);
  });

  it('takes a lye stock: its alkali and its water', async () => {
    // All of it as stock, or as much as there is water for and the rest dry: weighed as planned it is the same bar.
    for (const [product, lyeStock] of [
      ['first-light', { concentrationPct: 50 }],
      ['night-mail', { concentrationPct: 20, restDry: true }],
    ] as const) {
      const begun = await begin(product, { lyeStock });
      expect((begun.sheet.lyeStock!.dryG ?? 0) > 0).to.equal('restDry' in lyeStock);
      await sound(begun.id, asPlanned(begun));
      await sound(begun.id, [event('poured', { moulds: [], leftoverG: 0 })]);
      const { body } = await go('assessment', 'GET', { id: begun.id });
      const { masses } = (body as { assessment: { masses: { alkaliG: number; pourG: number } } }).assessment;
      expect(masses.alkaliG).to.be.closeTo(begun.sheet.alkaliG, 1e-6);
      expect(masses.pourG).to.be.closeTo(begun.sheet.pourG, 1e-6);
    }
    const refused = await go(
      'batches',
      'POST',
      {},
      { product: 'snow-plough', size: { bars: 14 }, lyeStock: { concentrationPct: 20 } },
    );
    expect(refused.status).to.equal(422);
    expect((refused.body.errors as { code: string }[])[0]!.code).to.equal('too-little-liquid');
  });

  it('holds ten thousand events', async () => {
    const begun = await begin('waiting-room');
    for (let request = 0; request < 10; request++)
      await sound(
        begun.id,
        Array.from({ length: 1000 }, (_, at) => event('noted', { text: `note ${at}`, for: 'record' })),
      );
    const { body } = await go('batch', 'GET', { id: begun.id });
    expect(body.seq).to.equal(10_001);
    // A connection of its own: one that was open before remembers an index that another has written since.
    const fresh = new Database(join(demo.folder, DATABASE_FILE), { readonly: true });
    expect(fresh.pragma('integrity_check(1)', { simple: true })).to.equal('ok');
    fresh.close();
  });
});
