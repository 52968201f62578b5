/** The rack over HTTP: what waits, a batch's cure, what went out, withdrawal, calendar, parts, photographs, plans. */
import { createHash } from 'node:crypto';
import { expect } from 'chai';
import type { Cure } from '../../src/core/curing/cure-types';
import type { BatchDetail, Trace } from '../../src/core/records/batch';
import type { CureData, RackData } from '../../src/core/records/rack';
import type { NextData } from '../../src/core/records/next';
import { call, caller } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  rack: () => import('../../src/pages/api/v1/rack'),
  days: () => import('../../src/pages/api/v1/rack/days'),
  calendar: () => import('../../src/pages/api/v1/rack/calendar'),
  feed: () => import('../../src/pages/api/v1/rack/calendar/[key]'),
  batches: () => import('../../src/pages/api/v1/batches'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  cure: () => import('../../src/pages/api/v1/batches/[id]/cure'),
  trace: () => import('../../src/pages/api/v1/batches/[id]/trace'),
  parts: () => import('../../src/pages/api/v1/batches/[id]/parts'),
  photos: () => import('../../src/pages/api/v1/batches/[id]/photos'),
  photo: () => import('../../src/pages/api/v1/batches/[id]/photos/[photo]'),
  sales: () => import('../../src/pages/api/v1/sales'),
  withdrawal: () => import('../../src/pages/api/v1/withdrawal'),
  next: () => import('../../src/pages/api/v1/next'),
  count: () => import('../../src/pages/api/v1/lots/count'),
  lot: () => import('../../src/pages/api/v1/lots/[lot]'),
  assess: () => import('../../src/pages/api/v1/assess'),
};
const go = caller(ROUTES);

let count = 0;
const event = (type: string, more: object) => ({
  id: `rack${++count}`,
  type,
  at: `${DAY}T08:00:00Z`,
  by: 'Oona',
  ...more,
});

async function write(id: string, events: object[]) {
  const answer = await go('events', 'POST', { params: { id }, body: { events } });
  expect(answer.status, JSON.stringify(answer.body)).to.equal(200);
}

/** A batch poured, cut into so many bars and released for markets. */
async function released(
  product: string,
  bars: number,
  markets = ['EU'],
): Promise<{ id: string; code: string }> {
  const begun = await go<BatchDetail>('batches', 'POST', { body: { product, by: null } });
  expect(begun.status).to.equal(201);
  const { id, code, sheet } = begun.body;
  const weigh = sheet.steps.flatMap((step) => step.weigh);
  await write(id, [
    ...weigh.map(({ line, massG, portion }) =>
      event('weighed', { line, massG, portion: portion ?? undefined, readabilityG: 0.1, how: 'scale' }),
    ),
    event('poured', { moulds: [], leftoverG: 30 }),
    event('cut', { bars, seconds: 0, trimmingsG: 40 }),
    event('released', { bars, netMassG: 80, markets, despite: 'for the test' }),
  ]);
  return { id, code };
}

describe('the rack over HTTP', () => {
  const demo = useDemo();

  it('says what waits for hands, and keeps what it reckoned', async () => {
    const { body } = await go<RackData>('rack', 'GET');
    const of = (code: string) => body.batches.find((batch) => batch.code === code)!;
    expect(of('FL-261123').tasks[0]!.kind).to.equal('cut');
    expect(of('FL-261123').window!.portions).to.have.length(1);
    expect(of('LC-261124').window!.portions.map(({ portion }) => portion)).to.have.members([
      'salted',
      'white',
    ]);
    expect(of('NM-261025').tasks.map(({ kind }) => kind)).to.deep.equal(['decide']);
    expect(of('SR-261007').drying).to.include({ isMeasured: true, settled: true });
    expect(body.batches.some(({ state }) => state === 'soldOut' || state === 'stopped')).to.equal(false);
    expect(
      (await go<RackData>('rack', 'GET')).body.batches.map(({ drying }) => drying?.readyOnDay),
    ).to.deep.equal(body.batches.map(({ drying }) => drying?.readyOnDay));
  });

  it('gives a batch’s cure, and reckons it anew after a weighing', async () => {
    const { body } = await go<CureData>('cure', 'GET', { params: { id: 'wr-261103' } });
    expect(body.cure.massRatio!.typical).to.be.within(0.8, 0.92);
    expect(body.net.map(({ market }) => market)).to.deep.equal(['EU', 'UK']);
    expect(body.against.join(' ')).to.match(/not settled.*Not checked yet/);
    const weighed = {
      ...event('barWeighed', { bar: '1', massG: 60, readabilityG: 0.1 }),
      at: `${DAY}T12:00:00Z`,
    };
    await write('wr-261103', [weighed]);
    const again = (await go<CureData>('cure', 'GET', { params: { id: 'wr-261103' } })).body.cure;
    expect(again.doubts.map(({ code }) => code)).to.deep.equal(['swapped']);
    await write('wr-261103', [event('corrected', { event: weighed.id, massG: 0, reason: 'another bar' })]);
    const left: Cure = (await go<CureData>('cure', 'GET', { params: { id: 'wr-261103' } })).body.cure;
    expect(left.massRatio).to.deep.equal(body.cure.massRatio);
    expect((await go('cure', 'GET', { params: { id: 'none' } })).status).to.equal(404);
  });

  it('sells nowhere it was not released for without a word', async () => {
    const { id } = await released('waiting-room', 10, ['EU']);
    const sell = (more: object) =>
      go('events', 'POST', {
        params: { id },
        body: { events: [event('moved', { bars: 1, how: 'sale', ...more })] },
      });
    const refused = await sell({ market: 'UK' });
    expect([
      refused.status,
      (refused.body as { errors?: { code: string; path: string }[] }).errors![0],
    ]).to.deep.include.members([422]);
    expect((refused.body as unknown as { errors: { code: string; path: string }[] }).errors[0]).to.include({
      code: 'not-released',
      path: 'events.0.market',
    });
    expect((await sell({ market: 'UK', despite: 'sent before the label came' })).status).to.equal(200);
    expect((await sell({ market: 'EU' })).status).to.equal(200);
  });

  it('takes five thousand sales at once, each row once; one wrong row and nothing is written', async function () {
    const { code, id } = await released('first-light', 6000);
    const rows = Array.from({ length: 5000 }, (_, at) => ({
      day: DAY,
      what: code,
      bars: 1,
      how: 'sale',
      to: `Buyer ${at % 700}`,
      market: 'EU',
    }));
    const wrong = rows.map((row, at) =>
      at === 4321 ? { ...row, what: 'No such bar' } : at === 17 ? { ...row, market: 'UK' } : row,
    );
    const left = async () =>
      (await go<CureData>('cure', 'GET', { params: { id } })).body.detail.batch.bars.left;
    const refused = await go<{ errors: { path: string; code: string }[] }>('sales', 'POST', {
      body: { rows: wrong },
    });
    expect(refused.status).to.equal(422);
    expect(refused.body.errors.map(({ path, code: why }) => [path, why])).to.deep.equal([
      ['rows.17.market', 'not-released'],
      ['rows.4321.what', 'unknown-bar'],
    ]);
    expect(await left()).to.equal(6000);
    const looked = await go('sales', 'POST', { body: { rows, preview: true } });
    expect([looked.status, looked.body.bars, await left()]).to.deep.equal([200, 5000, 6000]);
    const done = await go('sales', 'POST', { body: { rows } });
    expect([done.status, done.body.rows, await left()]).to.deep.equal([201, 5000, 1000]);
    const twice = await go('sales', 'POST', { body: { rows } });
    expect([twice.status, twice.body.known, await left()]).to.deep.equal([201, 5000, 1000]);
  });

  it('takes bars of a name from the oldest batch first, and says where there are too few', async () => {
    const row = { day: DAY, what: ' goods  yard', bars: 3, how: 'sale', market: 'EU' };
    const parts = (
      await go<{ parts: { batch: string; bars: number }[][] }>('sales', 'POST', {
        body: { rows: [row], preview: true },
      })
    ).body.parts;
    expect(parts).to.deep.equal([[{ batch: 'gy-260901', bars: 3 }]]);
    const many = await go<{ errors: object[] }>('sales', 'POST', { body: { rows: [{ ...row, bars: 500 }] } });
    expect(many.body.errors[0]).to.include({ path: 'rows.0.bars', code: 'not-enough-bars' });
    const early = await go<{ errors: object[] }>('sales', 'POST', {
      body: { rows: [{ ...row, day: '2026-01-05' }] },
    });
    expect(early.body.errors[0]).to.include({ code: 'not-released' });
  });

  it('is not stopped by an event that took the name of a row or of a part of it: told, or named otherwise', async () => {
    const { id, code } = await released('first-light', 20);
    const row = { day: DAY, what: code, bars: 1, how: 'sale', to: 'A taken name', market: 'EU' };
    const text = JSON.stringify([DAY, code, 1, 'sale', 'A taken name', 'EU', '', '']);
    const name = `sale:${createHash('sha256').update(`${text} 1`).digest('hex').slice(0, 32)}`;
    const take = (taken: string) =>
      go('events', 'POST', {
        params: { id },
        body: {
          events: [{ id: taken, type: 'noted', at: `${DAY}T10:00:00Z`, by: null, text: 'x', for: 'record' }],
        },
      });
    expect((await take(name)).status).to.equal(200);
    const refused = await go<{ errors: { path: string; code: string }[] }>('sales', 'POST', {
      body: { rows: [row] },
    });
    expect([refused.status, refused.body.errors[0]]).to.deep.include(422);
    expect(refused.body.errors[0]).to.include({ path: 'rows.0.what', code: 'id-taken' });
    const other = await go('sales', 'POST', { body: { rows: [{ ...row, ref: '7' }] } });
    expect(other.status).to.equal(201);
  });

  it('lists a withdrawal by lot and by batch, harmless in a spreadsheet', async () => {
    const { id, code } = await released('waiting-room', 12);
    await go('sales', 'POST', {
      body: { rows: [{ day: DAY, what: code, bars: 2, how: 'sale', to: '=HYPERLINK("x")', market: 'EU' }] },
    });
    const { body } = await go<{ went: { to: string; bars: number }[]; gone: number; letter: string }>(
      'withdrawal',
      'GET',
      { query: `?batch=${id}` },
    );
    expect([body.gone, body.went[0]!.to]).to.deep.equal([2, '=HYPERLINK("x")']);
    expect(body.letter).to.contain(code);
    const text = (answer: { body: unknown }) => Buffer.from(answer.body as ArrayBuffer).toString();
    expect(text(await go('withdrawal', 'GET', { query: `?batch=${id}&as=csv` }))).to.contain(
      `"'=HYPERLINK(""x"")"`,
    );
    expect(text(await go('withdrawal', 'GET', { query: `?batch=${id}&as=pdf` }))).to.match(/^%PDF/);
    expect((await go('withdrawal', 'GET')).status).to.equal(422);
    expect((await go('withdrawal', 'GET', { query: '?lot=none' })).status).to.equal(404);
  });

  it('makes trimmings a material whose list, scents and batch go on into the next bar', async () => {
    const { id, code } = await released('night-mail', 12);
    const made = await go<{
      material: { id: string; inci: { name: string; sharePct: number }[] };
      lots: { id: string; code: string }[];
    }>('parts', 'POST', {
      params: { id },
      body: { what: 'trimmings', name: 'Night Mail shavings', massG: 40 },
    });
    expect(made.status, JSON.stringify(made.body)).to.equal(201);
    const { material, lots } = made.body;
    expect(material.inci.reduce((sum, { sharePct }) => sum + sharePct, 0)).to.be.closeTo(100, 0.5);
    expect(material.inci.some(({ name }) => /^Sodium .*ate$/.test(name))).to.equal(true);
    expect(lots[0]!.code).to.equal(code);
    const formula = {
      alkali: { superfatPct: 5, purityPct: 100 },
      lines: [
        { id: 'o', material: 'olive', stage: 'fats', amount: { value: 500, unit: 'g' } },
        { id: 'w', material: 'water', stage: 'liquid', amount: { value: 165, unit: 'g' } },
        { id: 's', material: material.id, stage: 'trace', amount: { value: 200, unit: 'g' } },
      ],
    };
    const request = { format: 'proportia.assessment-request/1', formula, markets: ['EU'], onDate: DAY };
    const { body } = await go<{
      limits: { id: string; subject: { id: string }; nominalPct: number }[];
      unproven: unknown[];
      ingredients: { school: string; text: string }[];
      superfat: { effectivePct: number };
    }>('assess', 'POST', { body: request });
    // The scent within the shavings is still held by its certificate, at its share of the new bar.
    const scent = body.limits.find(({ subject }) => subject.id === 'coal-and-violets');
    expect(scent?.nominalPct).to.be.within(0.8, 1.6);
    expect(body.unproven).to.deep.equal([]);
    expect(body.superfat.effectivePct).to.be.closeTo(5, 1e-6);
    const lot = lots[0]!.id;
    const next = await go<BatchDetail>('batches', 'POST', { body: { product: 'first-light', by: null } });
    await write(next.body.id, [
      event('added', {
        material: material.id,
        stage: 'trace',
        massG: 20,
        how: 'typed',
        readabilityG: 0.1,
        lot,
      }),
    ]);
    const trace = async (of: string) =>
      (await go<Trace>('trace', 'GET', { params: { id: of } })).body.batches.map((one) => one.code);
    expect(await trace(id)).to.include(next.body.code);
    expect(await trace(next.body.id)).to.include(code);

    // Held back, the batch holds back what was made of it, and no longer once that is decided.
    const more = {
      material: material.id,
      stage: 'trace',
      massG: 1,
      how: 'typed',
      readabilityG: 0.1,
      lot,
    };
    const takes = async () =>
      (
        await go<{ errors?: { code: string; message: string }[] }>('events', 'POST', {
          params: { id: next.body.id },
          body: { events: [event('added', more)] },
        })
      ).body.errors ?? [];
    await write(id, [event('quarantined', { reason: 'Smells odd.' })]);
    const [refused] = await takes();
    expect(refused?.code).to.equal('lot-quarantined');
    expect(refused?.message).to.contain(`Batch ${code}`);
    await write(id, [event('decided', { decision: 'release', reason: 'It was the cloth.' })]);
    expect(await takes()).to.deep.equal([]);
  });

  it('reckons with the days the maker sets, once they are set, and refuses what are none', async () => {
    const { body } = await go<RackData>('rack', 'GET');
    expect(body.days).to.deep.equal({ least: 28, usual: 42 });
    const set = (more: object) =>
      go<RackData>('days', 'PUT', { body: { revision: body.revision, least: 60, usual: 90, ...more } });
    expect((await set({ least: 0 })).status).to.equal(422);
    const before = (await go<CureData>('cure', 'GET', { params: { id: 'fl-261014' } })).body;
    const done = await set({});
    expect(done.body.days).to.deep.equal({ least: 60, usual: 90 });
    expect((await set({ least: 5 })).status).to.equal(409);
    const after = (await go<CureData>('cure', 'GET', { params: { id: 'fl-261014' } })).body;
    expect(before.against.join()).not.to.contain('of at least 60 days');
    expect(after.against.join()).to.contain('of at least 60 days');
    expect(after.cure.readyOnDay!.low).to.be.at.least(60);
    expect((await go<NextData>('next', 'GET')).body.cureDays).to.equal(90);
    await set({ revision: done.body.revision, least: 28, usual: 42 });
  });

  it('counts the shelf, all lots or none, as entries of the ledger', async () => {
    const shelf = (
      await go<{ lots: { id: string; leftG: number }[] }>('count', 'POST', {
        body: { rows: [], reason: 'x' },
      })
    ).status;
    expect(shelf).to.equal(422);
    const { db } = demo;
    const lots: { id: string }[] = await db('lots').select('id').limit(2);
    const [one, two] = lots.map(({ id }) => id) as [string, string];
    const ledger = async (id: string) =>
      (
        await go<{ leftG: number; movements: { massG: number; reason: string | null }[] }>('lot', 'GET', {
          params: { lot: id },
        })
      ).body;
    const before = await ledger(one);
    const count = (rows: object[]) => go('count', 'POST', { body: { rows, reason: 'Counted in November' } });
    expect(
      (
        await count([
          { lot: one, leftG: 1 },
          { lot: two, leftG: 1e6 },
        ])
      ).status,
    ).to.equal(422);
    expect(await ledger(one)).to.deep.equal(before);
    expect((await count([{ lot: one, leftG: before.leftG - 3 }])).status).to.equal(200);
    const after = await ledger(one);
    expect(after.leftG).to.be.closeTo(before.leftG - 3, 1e-6);
    expect(after.movements.find(({ reason }) => reason === 'Counted in November')!.massG).to.be.closeTo(
      3,
      1e-6,
    );
  });

  it('gives the calendar to who knows its address, and to nobody after it was changed', async () => {
    const { path } = (await go<{ path: string }>('calendar', 'GET')).body;
    const key = /([^/]+)\.ics$/.exec(path)![1]!;
    const feed = await go('feed', 'GET', { params: { key: `${key}.ics` } });
    const text = Buffer.from(feed.body as unknown as ArrayBuffer).toString();
    expect(text).to.match(/^BEGIN:VCALENDAR/);
    expect(text).to.contain('SUMMARY:Cut First Light FL-261123');
    expect(text).to.match(/DTSTART:\d{8}T\d{6}Z/);
    expect((await go('feed', 'GET', { params: { key: 'guessed' } })).status).to.equal(404);
    await go('calendar', 'POST');
    expect((await go('feed', 'GET', { params: { key: `${key}.ics` } })).status).to.equal(404);
  });

  it('keeps photographs as what they are, and nothing else', async () => {
    const send = (bytes: Uint8Array, type = 'image/png') =>
      call(
        ROUTES.photos() as never,
        'POST',
        '/api/v1/x?note=after%20a%20week',
        { body: bytes as BodyInit, headers: { 'content-type': type } },
        { id: 'fl-261014' },
      );
    const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
    const kept = await send(png);
    expect(kept.status).to.equal(201);
    const { id } = kept.body as unknown as { id: string };
    const shown = await go('photo', 'GET', { params: { id: 'fl-261014', photo: id } });
    expect(new Uint8Array(shown.body as unknown as ArrayBuffer)).to.deep.equal(png);
    expect((await send(new TextEncoder().encode('<svg onload="x"/>'), 'image/svg+xml')).status).to.equal(422);
    expect((await send(png, 'text/plain')).status).to.equal(415);
    const at = (batch: string) => ({ params: { id: batch, photo: id } });
    expect((await go('photo', 'GET', at('sp-261121'))).status).to.equal(404);
    expect((await go('photo', 'DELETE', at('sp-261121'))).status).to.equal(404);
    expect((await go('photo', 'DELETE', at('fl-261014'))).status).to.equal(200);
    expect((await go('photo', 'GET', at('fl-261014'))).status).to.equal(404);
  });

  it('says what to pour next, and reckons anew what is wanted and planned', async () => {
    const { body } = await go<NextData>('next', 'GET');
    const of = (data: NextData, id: string) => data.bars.find((bar) => bar.id === id)!;
    const before = of(body, 'branch-line');
    expect([before.pace.perWeek, before.next.startBy]).to.deep.equal([null, null]);
    const wanted = [{ id: 'w1', product: 'branch-line', name: 'Spring fair', day: '2027-03-01', bars: 10 }];
    const put = (plans: object) => go<NextData>('next', 'PUT', { body: plans });
    const asked = await put({ revision: body.revision, wanted, planned: [] });
    expect(of(asked.body, 'branch-line').next).to.include({
      endsOn: '2027-03-01',
      startBy: '2027-01-18',
      why: '10 wanted for Spring fair',
    });
    const planned = [{ id: 'p1', product: 'branch-line', day: '2027-01-10', bars: 12 }];
    const done = await put({ revision: asked.body.revision, wanted, planned });
    expect(of(done.body, 'branch-line').next.startBy).to.equal(null);
    const evenings = { revision: done.body.revision, wanted, planned, evenings: [0, 3], room: 150 };
    const limited = await put(evenings);
    expect([limited.body.evenings, limited.body.room]).to.deep.equal([[0, 3], 150]);
    // Who does not speak of them leaves them as they are.
    const again = await put({ revision: limited.body.revision, wanted, planned });
    expect([again.body.evenings, again.body.room]).to.deep.equal([[0, 3], 150]);
    expect((await put({ ...evenings, evenings: [7] })).status).to.equal(422);
    expect((await put({ revision: body.revision, wanted: [], planned: [] })).status).to.equal(409);
    expect((await put({ revision: 1, wanted: [{ ...wanted[0], bars: 0 }], planned })).status).to.equal(422);
  });
});
