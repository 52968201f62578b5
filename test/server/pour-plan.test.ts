/** What is said before a pour is begun. */
import { expect } from 'chai';
import type { Batch } from '../../src/core/batch/types';
import { findSetting } from '../../src/server/repositories/settings';
import { lastPour } from '../../src/server/services/pour/last-pour';
import { planPour } from '../../src/server/services/pour/pour-plan';
import { lotsOf } from '../../src/server/repositories/lots';
import { nextData } from '../../src/server/services/rack/next';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  plan: () => import('../../src/pages/api/v1/batches/plan'),
  begin: () => import('../../src/pages/api/v1/batches/index'),
  events: () => import('../../src/pages/api/v1/batches/[id]/events'),
  papers: () => import('../../src/pages/api/v1/materials/[id]/papers'),
};
const post = async (route: keyof typeof ROUTES, body: unknown, params = {}) => {
  const answer = await call(
    ROUTES[route]() as never,
    'POST',
    '/api/v1/x',
    sending(JSON.stringify(body)),
    params,
  );
  return { status: answer.status, body: answer.body as Record<string, unknown> };
};

describe('planning a pour', () => {
  const demo = useDemo();

  it('begins with the size, the lye stock and the hands of the last pour; with nothing where there was none', async () => {
    const body = {
      product: 'waiting-room',
      size: { bars: 9 },
      lyeStock: { concentrationPct: 50 },
      by: 'Marit',
    };
    const { body: begun } = await post('begin', body);
    expect(await lastPour(demo.house, 'waiting-room')).to.deep.equal({
      code: begun.code,
      kind: 'bars',
      size: 9,
      moulds: [],
      concentrationPct: 50,
      restDry: false,
      isMade: false,
      bucket: null,
      by: 'Marit',
      temperatures: [],
      rested: null,
    });
    const moulds = (await findSetting(demo.db, 'moulds')).value
      .slice(0, 2)
      .map(({ id }) => ({ id, count: 2 }));
    expect(moulds).to.have.length(2);
    const both = await post('begin', { ...body, size: { moulds }, despite: 'for the fair' });
    const { id, batch } = both.body as { id: string; batch: Batch };
    expect(batch.notes.map(({ text }) => text)).to.deep.equal(['Poured all the same: for the fair']);
    const at = `${DAY}T10:00:00Z`;
    const events = [
      { id: 'lp-1', type: 'temperature', at, by: null, of: 'lye', c: 35 },
      { id: 'lp-2', type: 'temperature', at, by: null, of: 'lye', c: 38 },
      { id: 'lp-3', type: 'stopped', at, by: null, reason: 'no' },
    ];
    expect((await post('events', { events: events.slice(0, 2) }, { id })).status).to.equal(200);
    const last = (await lastPour(demo.house, 'waiting-room'))!;
    expect([last.kind, last.size, last.moulds]).to.deep.equal(['mould', 4, moulds]);
    expect(last.temperatures).to.deep.equal([{ of: 'lye', c: 38 }]);
    expect((await post('events', { events: events.slice(2) }, { id })).status).to.equal(200);
    expect((await lastPour(demo.house, 'waiting-room'))!.code).to.equal(begun.code);
    expect(await lastPour(demo.house, 'no-such-bar')).to.equal(null);
  });

  it('says before the pour where a scent’s papers lie behind the newest edition', async () => {
    const warned = async () => {
      const { body } = await post('plan', { product: 'night-mail' });
      const needed = body.needed as { material: string; warnings: string[] }[];
      return needed.find(({ material }) => material === 'coal-and-violets')!.warnings.join(' ');
    };
    expect(await warned()).not.to.match(/follows/);
    const paper = {
      type: 'certificate',
      number: 'ED-49',
      edition: '49th',
      issuedOn: DAY,
      issuer: 'Hesper & Dunn',
    };
    const body = { papers: [{ ...paper, category: '9', maxPct: 3 }], inbox: null };
    expect((await post('papers', body, { id: 'coal-and-violets' })).status).to.equal(201);
    expect(await warned()).to.match(
      /^Certificate ED-49: It follows the 49th edition; the newest known is the 51st/,
    );
  });

  it('finds the same missing as what to pour next says of every bar', async () => {
    const { bars } = await nextData(demo.house);
    let missing = 0;
    for (const bar of bars) {
      const { needed, sheet, verdict } = await planPour(demo.house, { product: bar.id });
      const wanting = needed.filter(
        ({ material, neededG, freeG }) => freeG < neededG && material !== 'water',
      );
      const told = new Map(bar.missing.map((one) => [one.material, one]));
      expect([...told.keys()], bar.id).to.have.members(wanting.map(({ material }) => material));
      for (const { material, name, neededG, freeG } of wanting) {
        expect(told.get(material)!.neededG, `${bar.id} ${material}`).to.be.closeTo(neededG, 1e-6);
        expect(told.get(material)!.freeG, `${bar.id} ${material}`).to.be.closeTo(freeG, 1e-6);
        expect(told.get(material)!.name).to.equal(name);
      }
      expect([bar.barsAPour, bar.verdict], bar.id).to.deep.equal([sheet.bars, verdict]);
      missing += wanting.length;
    }
    expect(missing).to.be.above(0);
  });

  it('knows for the weeks ahead until when each lot that is free is good', async () => {
    const { materials } = await nextData(demo.house);
    let dated = 0;
    for (const [id, { freeG, lots }] of Object.entries(materials)) {
      const onFile = (await lotsOf(demo.db, [id])).filter(
        ({ quarantine, bestBefore, leftG }) => !quarantine && leftG > 0 && (bestBefore ?? DAY) >= DAY,
      );
      expect(
        lots.reduce((sum, { massG }) => sum + massG, 0),
        id,
      ).to.be.closeTo(freeG, 1e-6);
      const ends = onFile.flatMap(({ bestBefore }) => bestBefore ?? []);
      for (const { until } of lots) if (until !== null) expect(ends, id).to.include(until);
      dated += lots.filter(({ until }) => until !== null).length;
    }
    expect(dated).to.be.above(5);
  });
});
