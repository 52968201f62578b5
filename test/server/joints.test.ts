/**
 * The last yard: figures that a person relies on, from where they are measured to where they are printed. Each goes the
 * whole way through the doors, as a bench and a desk do.
 */
import { expect } from 'chai';
import type { BatchEvent } from '../../src/core/batch/types';
import type { RunSheet } from '../../src/core/making/run-sheet-types';
import type { BatchRecord } from '../../src/core/batch/record';
import { ALKALI_LINE } from '../../src/core/making/run-sheet-types';
import type { BatchAssessment } from '../../src/core/records/batch';
import type { NextData } from '../../src/core/records/next';
import type { CureData, RackData } from '../../src/core/records/rack';
import type { RangeData } from '../../src/core/records/range';
import type { WrapData } from '../../src/core/records/wrap';
import { wrapData } from '../../src/server/services/wrap/desk';
import { saveProductWrap } from '../../src/server/services/wrap/wrap';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({
  batches: () => import('../../src/pages/api/v1/batches'),
  batch: () => import('../../src/pages/api/v1/batches/[id]'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  cure: () => import('../../src/pages/api/v1/batches/[id]/cure'),
  assessment: () => import('../../src/pages/api/v1/batches/[id]/assessment'),
  label: () => import('../../src/pages/api/v1/products/[id]/label'),
  record: () => import('../../src/pages/api/v1/batches/[id]/record'),
  next: () => import('../../src/pages/api/v1/next'),
  range: () => import('../../src/pages/api/v1/range'),
  rack: () => import('../../src/pages/api/v1/rack'),
});
const MS_PER_DAY = 24 * 3_600_000;
let count = 0;
const on = (day: number) => new Date(Date.parse(`${DAY}T09:00:00Z`) + day * MS_PER_DAY).toISOString();
const event = (type: string, day: number, more: object): BatchEvent =>
  ({ id: `joint-${++count}`, type, at: on(day), by: 'Oona', ...more }) as unknown as BatchEvent;

describe('joints', () => {
  const test = useDemo();
  type Told = { errors: { path: string; code: string; message: string }[] };
  const write = (id: string, ...events: BatchEvent[]) =>
    go<Told>('events', 'POST', { params: { id }, body: { events } });
  const cureOf = async (id: string) => (await go<CureData>('cure', 'GET', { params: { id } })).body;

  /** A batch weighed as planned, and whatever more, poured and cut into bars of some 102 g. */
  async function cutBatch(
    product = 'first-light',
    more: BatchEvent | ((sheet: RunSheet) => BatchEvent) | null = null,
  ) {
    const { status, body } = await go<{ id: string; code: string; sheet: RunSheet }>('batches', 'POST', {
      body: { product, size: { fatsMassG: 1000 }, by: 'Oona' },
    });
    expect(status, JSON.stringify(body)).to.equal(201);
    const { id, code, sheet } = body;
    const weighed = sheet.steps.flatMap(({ weigh }) =>
      weigh.map(({ line, massG, portion }) =>
        event('weighed', 0, { line, massG, portion: portion ?? undefined, readabilityG: 0.1, how: 'typed' }),
      ),
    );
    const extra = typeof more === 'function' ? [more(sheet)] : more ? [more] : [];
    await write(id, ...weighed, ...extra, event('poured', 0, { moulds: [], leftoverG: 0 }));
    const cut = await write(
      id,
      event('cut', 1, { bars: Math.round(sheet.pourG / 102), seconds: 0, trimmingsG: 0 }),
    );
    expect(cut.status, JSON.stringify(cut.body)).to.equal(200);
    return { id, code };
  }
  /** What a bar of a mass weighs so many days after the pour: it loses an eighth, most of it in ten days. */
  const dried = (massG: number, day: number) =>
    Number((massG * (1 - 0.125 * (1 - Math.exp(-day / 10)))).toFixed(1));
  const bars: Record<string, number> = { '1': 104, '2': 101.5, '3': 99.2 };
  const weigh = (id: string, day: number, of: string[] = Object.keys(bars)) =>
    write(
      id,
      ...of.map((bar) => event('barWeighed', day, { bar, massG: dried(bars[bar]!, day), readabilityG: 0.1 })),
    );

  it('net weight: from bars on the scale over the cure to the figure on the printed label', async () => {
    expect(test.db).to.be.a('function');
    const { id, code } = await cutBatch();
    await weigh(id, 2);
    // A fresh bar says nothing of what it will weigh.
    expect([(await cureOf(id)).net, (await cureOf(id)).lightestG]).to.deep.equal([[], null]);
    for (const day of [6, 12, 20, 27, 34, 41, 48])
      await weigh(id, day, day === 6 ? ['1', '2', '3'] : ['1', '2']);
    const data = await cureOf(id);
    expect(data.cure!.settled, data.cure!.needs.join()).to.equal(true);
    // Bar 3 was last weighed on day 6 at 93.6 g; it settles at 86.8 g, and that is what counts.
    const lightest = bars['3']! * 0.875;
    expect(dried(bars['3']!, 6)).to.be.above(lightest + 4);
    expect(data.lightestG).to.be.within(lightest - 3, lightest + 0.3);
    const { declareG } = data.net[0]!.net;
    expect(declareG).to.equal(Math.floor(data.lightestG!));
    const release = (netMassG: number, more = {}) =>
      write(id, event('released', 50, { bars: 10, netMassG, markets: ['EU'], ...more }));
    const refused = await release(declareG + 6);
    expect([refused.status, refused.body.errors[0]]).to.deep.include(422);
    expect(refused.body.errors[0]).to.include({ code: 'net-too-high', path: 'events.0.netMassG' });
    expect((await release(declareG)).status).to.equal(200);
    const label = await go<ArrayBuffer>('label', 'GET', {
      params: { id: 'first-light' },
      query: `?market=EU&as=text&batch=${id}`,
    });
    const text = Buffer.from(label.body).toString();
    expect(text).to.contain(`${declareG} g`).and.to.contain(code);
    const wrap: WrapData = await wrapData(test.house, 'first-light', id);
    expect(wrap.batch).to.include({ netMassG: declareG, lightestG: data.lightestG });
  });

  it('a net above the lightest bar, with a reason written, is told on the label’s screen', async () => {
    const { id } = await cutBatch();
    for (const day of [2, 8, 15, 22, 29, 36, 43, 50]) await weigh(id, day);
    const high = Math.ceil((await cureOf(id)).lightestG!) + 4;
    const released = event('released', 52, {
      bars: 5,
      netMassG: high,
      markets: ['EU'],
      despite: 'weighed again',
    });
    expect((await write(id, released)).status).to.equal(200);
    const { batch } = await wrapData(test.house, 'first-light', id);
    expect(batch!.netMassG).to.equal(high).and.to.be.above(batch!.lightestG!);
  });

  it('a weighing in doubt holds what is settled and a release back, until it is left out or confirmed', async () => {
    const { id } = await cutBatch();
    for (const day of [2, 8, 15, 22, 29, 36]) await weigh(id, day);
    const slip = event('barWeighed', 43, { bar: '1', massG: 97.4, readabilityG: 0.1 });
    await write(id, slip);
    await weigh(id, 50);
    const held = await cureOf(id);
    expect([held.cure!.settled, held.cure!.doubts.length]).to.deep.equal([false, 1]);
    expect(held.cure!.needs[0]).to.match(/^Decide first/);
    expect(held.against.join()).to.contain('in doubt');
    const release = () => write(id, event('released', 51, { bars: 1, netMassG: 80, markets: ['EU'] }));
    expect((await release()).body.errors[0]).to.include({ code: 'doubt-open' });
    const corrected = (massG: number) =>
      write(id, event('corrected', 51, { event: slip.id, massG, reason: 'looked again' }));
    await corrected(97.4);
    expect((await cureOf(id)).cure!.doubts).to.deep.equal([]);
    await corrected(0);
    expect((await cureOf(id)).cure).to.include({ settled: true });
    expect((await release()).status).to.equal(200);
  });

  it('best before: from the day of the pour to the month on the printed label', async () => {
    const { id } = await cutBatch();
    const say = async (query: string) => {
      const label = await go<ArrayBuffer>('label', 'GET', { params: { id: 'first-light' }, query });
      return Buffer.from(label.body).toString();
    };
    const { stored } = await wrapData(test.house, 'first-light');
    const wrap = { ...stored.wrap, durability: { months: 15, endsOn: '2030-01' } };
    await saveProductWrap(test.house, 'first-light', stored.revision, wrap);
    expect(await say('?market=EU&as=text')).to.contain('01/2030');
    expect(await say(`?market=EU&as=text&batch=${id}`))
      .to.contain('02/2028')
      .and.not.to.contain('01/2030');
    expect((await wrapData(test.house, 'first-light', id)).batch).to.include({ endsOn: '2028-02' });
  });

  it('what is ready: from what was released and went to the range, the plan and the rack', async () => {
    const product = 'first-light';
    const told = async () => {
      const { bars } = (await go<NextData>('next', 'GET')).body;
      const { rows } = (await go<RangeData>('range', 'GET')).body;
      return [bars.find(({ id }) => id === product)!.ready, rows.find(({ id }) => id === product)!.ready];
    };
    const [before] = await told();
    expect(await told()).to.deep.equal([before, before]);
    const { id } = await cutBatch(product);
    for (const day of [2, 8, 15, 22, 29, 36, 43]) await weigh(id, day);
    expect(await told(), 'cut and cured is not ready').to.deep.equal([before, before]);
    const release = event('released', 44, { bars: 5, netMassG: 70, markets: ['EU'], despite: 'a test' });
    await write(id, release);
    expect(await told(), 'five of twelve are').to.deep.equal([before! + 5, before! + 5]);
    await write(id, event('moved', 45, { bars: 2, how: 'sale', market: 'EU' }));
    expect(await told(), 'two went').to.deep.equal([before! + 3, before! + 3]);
    await write(id, event('quarantined', 46, { reason: 'a spot' }));
    expect(await told(), 'held, none of it is').to.deep.equal([before, before]);
  });

  it('lye: from the pan of the scale to the masses of the verdict, the superfat and the record', async () => {
    const of = async (id: string) => {
      const { body } = await go<BatchAssessment>('assessment', 'GET', { params: { id } });
      const { body: record } = await go<BatchRecord>('record', 'GET', { params: { id } });
      const line = record.lines.find((one) => one.line === ALKALI_LINE)!;
      return { masses: body.assessment.masses, line, superfatPct: record.superfatPct! };
    };
    const planned = await of((await cutBatch()).id);
    expect(planned.line.massG).to.be.closeTo(planned.masses.alkaliG, 1e-6);
    const extraG = 2.4;
    const { id } = await cutBatch(
      'first-light',
      event('weighed', 0, { line: ALKALI_LINE, massG: extraG, readabilityG: 0.1, how: 'typed' }),
    );
    const weighed = await of(id);
    expect(weighed.masses.alkaliG).to.be.closeTo(planned.masses.alkaliG + extraG, 1e-6);
    expect(weighed.line).to.deep.include({ massG: weighed.masses.alkaliG });
    // All of it that is sodium hydroxide takes up fat that would have stayed free.
    const purity = planned.masses.alkaliPureG / planned.masses.alkaliG;
    const forFats = planned.masses.alkaliPureG / (1 - planned.superfatPct / 100);
    expect(weighed.superfatPct).to.be.closeTo(planned.superfatPct - (100 * extraG * purity) / forFats, 0.05);
  });

  it('the verdict at the bench: from too much scent in the pan to a batch that is held everywhere', async () => {
    const scent = (sheet: RunSheet) =>
      sheet.steps.flatMap(({ weigh: all }) => all).find(({ material }) => material === 'fennel-oil')!;
    const begun = await cutBatch('first-light', (sheet) =>
      event('weighed', 0, {
        line: scent(sheet).line,
        massG: 12 * scent(sheet).massG,
        readabilityG: 0.1,
        how: 'typed',
      }),
    );
    const { body } = await go<BatchAssessment>('assessment', 'GET', { params: { id: begun.id } });
    expect(body.assessment.verdict).to.equal('over');
    const { body: record } = await go<BatchRecord>('record', 'GET', { params: { id: begun.id } });
    expect([record.isQuarantined, record.verdicts[0]!.verdict]).to.deep.equal([true, 'over']);
    expect(record.quarantines[0]!.reason).to.match(/^As weighed, it is over: Sweet fennel oil/);
    const { batches } = (await go<RackData>('rack', 'GET')).body;
    expect(batches.find(({ id }) => id === begun.id)!.tasks[0]).to.include({ kind: 'decide' });
    const released = event('released', 50, { bars: 1, netMassG: 70, markets: ['EU'], despite: 'a test' });
    expect((await write(begun.id, released)).status).to.equal(422);
  });

  it('days of release count by market, and of two in one market the later', async () => {
    const { id } = await cutBatch();
    for (const day of [2, 8, 15, 22, 29, 36, 43]) await weigh(id, day);
    const release = (day: number, markets: string[]) =>
      write(id, event('released', day, { bars: 2, netMassG: 70, markets, despite: 'a test' }));
    await release(44, ['EU']);
    await release(60, ['UK']);
    await release(90, ['EU']);
    const { body } = await go<{ request: { placedOn: object } }>('assessment', 'GET', { params: { id } });
    expect(body.request.placedOn).to.deep.equal({ EU: on(90).slice(0, 10), UK: on(60).slice(0, 10) });
  });
});
