/** The range over HTTP: what each row says, what is tried, what is kept, and that rows follow what changes. */
import { expect } from 'chai';
import type { Assessment } from '../../src/core/formula/answer';
import type { Formula } from '../../src/core/formula/types';
import type { RangeNames } from '../../src/core/records/scent';
import type { RangeData, RangeRow, RangeViews, TriedBar } from '../../src/core/records/range';
import { readyBars } from '../../src/core/stock/supply';
import { wrapOverview } from '../../src/server/store/overviews';
import { createProduct } from '../../src/server/services/worktable/products';
import { makeTask } from '../../src/server/services/watch/tasks';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({
  range: () => import('../../src/pages/api/v1/range'),
  days: () => import('../../src/pages/api/v1/range/days'),
  tries: () => import('../../src/pages/api/v1/range/try'),
  views: () => import('../../src/pages/api/v1/range/views'),
  names: () => import('../../src/pages/api/v1/range/names'),
  issued: () => import('../../src/pages/api/v1/products/[id]/issued'),
  formula: () => import('../../src/pages/api/v1/products/[id]/formula'),
  details: () => import('../../src/pages/api/v1/products/[id]/details'),
  product: () => import('../../src/pages/api/v1/products/[id]'),
  away: () => import('../../src/pages/api/v1/products/[id]/away'),
  assess: () => import('../../src/pages/api/v1/assess'),
});

describe('the range over HTTP', () => {
  const test = useDemo();
  const rows = async () => (await go<RangeData>('range', 'GET')).body.rows;
  const row = async (id: string): Promise<RangeRow> => (await rows()).find((one) => one.id === id)!;

  it('has every bar once with its verdict, its scents and its room in each market it is sold in', async () => {
    const { body } = await go<RangeData>('range', 'GET');
    expect([body.count, body.rows.length, body.pending]).to.deep.equal([10, 10, 0]);
    const lamp = await row('lamp-room');
    expect(lamp.verdict).to.equal('over');
    expect(lamp.scents).to.include('Clove bud oil');
    expect(lamp.markets.map(({ market }) => market)).to.deep.equal(['EU', 'UK']);
    for (const { verdict, headroomPct, boundBy } of lamp.markets) {
      expect(verdict).to.equal('over');
      expect(headroomPct).to.be.below(0);
      expect(boundBy).to.equal('eugenol');
    }
    expect(lamp.closest).to.not.have.property('contributors');
    expect((await row('branch-line')).markets.every(({ verdict }) => verdict === 'unproven')).to.equal(true);
  });

  it('says the room that an assessment says', async () => {
    const bars = await rows();
    for (const { id, markets } of bars) {
      const { formula } = (
        (await go('product', 'GET', { params: { id } })).body as unknown as {
          version: { formula: object };
        }
      ).version;
      const request = {
        format: 'proportia.assessment-request/1',
        formula,
        markets: markets.map(({ market }) => market),
        onDate: DAY,
      };
      const answer = await go<{ limits: { market: string; force: string; headroomPct: number | null }[] }>(
        'assess',
        'POST',
        { body: request },
      );
      expect(answer.status, id).to.equal(200);
      for (const { market, headroomPct } of markets) {
        const rooms = answer.body.limits
          .filter((limit) => limit.market === market && limit.force !== 'craft' && limit.headroomPct !== null)
          .map((limit) => limit.headroomPct!);
        const least = rooms.length > 0 ? Math.min(...rooms) : null;
        if (least === null) expect(headroomPct, id).to.equal(null);
        else expect(headroomPct, `${id} ${market}`).to.be.closeTo(least, 1e-9);
      }
    }
  });

  it('counts bars ready, curing and sold as the batches have them', async () => {
    const batches: { product_id: string; state: string; summary: string; weighed: string | null }[] =
      await test.db('batches');
    for (const { id, ready, curing, sold } of await rows()) {
      const own = batches.filter((one) => one.product_id === id && one.weighed !== null);
      const folded = own
        .filter(({ state }) => state !== 'stopped' && state !== 'discarded')
        .map(({ summary }) => JSON.parse(summary) as Parameters<typeof readyBars>[0]);
      const sum = (of: (one: (typeof folded)[number]) => number) =>
        folded.reduce((total, one) => total + of(one), 0);
      const left = sum(({ isQuarantined, bars }) => (isQuarantined ? 0 : bars.left));
      expect([ready, curing], id).to.deep.equal([sum(readyBars), left - sum(readyBars)]);
      const moved = own
        .filter(({ state }) => state !== 'stopped' && state !== 'discarded')
        .reduce((sum, { weighed }) => sum + ((JSON.parse(weighed!) as { sold?: number }).sold ?? 0), 0);
      expect(sold, id).to.equal(moved);
    }
    expect((await rows()).some(({ sold }) => sold > 0)).to.equal(true);
  });

  it('knows whether an issued label still reads the same, the moment it does not', async () => {
    const params = { id: 'first-light' };
    expect((await row('first-light')).label).to.equal('none');
    expect((await go('issued', 'POST', { params, body: { market: 'EU' } })).status).to.equal(201);
    expect((await row('first-light')).label).to.equal('same');
    const { version } = (await go('product', 'GET', { params })).body as unknown as {
      version: { revision: number; formula: { lines: { id: string; stage: string; amount: object }[] } };
    };
    const lines = version.formula.lines.filter(({ stage }) => stage !== 'trace');
    const body = { revision: version.revision, formula: { ...version.formula, lines } };
    expect((await go('formula', 'PUT', { params, body })).status).to.equal(200);
    expect((await row('first-light')).label).to.equal('differs');
    const back = { revision: version.revision + 1, formula: version.formula };
    expect((await go('formula', 'PUT', { params, body: back })).status).to.equal(200);
    expect((await row('first-light')).label).to.equal('same');
    const ofIt = test.db('issued_labels').where({ product_id: 'first-light' });
    expect(await ofIt.pluck('market')).to.deep.equal(['EU']);
  });

  it('follows details: collection, markets, and what is put away comes last', async () => {
    const params = { id: 'night-mail' };
    const { product } = (await go('product', 'GET', { params })).body as unknown as {
      product: Record<string, unknown> & { revision: number };
    };
    const { id: _, putAwayOn: __, ...details } = product;
    const body = { ...details, collection: ' Winter ', markets: ['US'] };
    expect((await go('details', 'PUT', { params, body })).status).to.equal(200);
    const changed = await row('night-mail');
    expect([changed.collection, changed.markets.map(({ market }) => market)]).to.deep.equal([
      'Winter',
      ['US'],
    ]);
    // Who says nothing of the collection leaves it.
    const { collection: ___, ...plain } = { ...body, revision: product.revision + 1, markets: ['EU', 'UK'] };
    await go('details', 'PUT', { params, body: plain });
    expect((await row('night-mail')).collection).to.equal('Winter');
    await go('away', 'PUT', { params });
    expect((await rows()).at(-1)!.id).to.equal('night-mail');
    await go('away', 'DELETE', { params });
    expect((await rows()).at(-1)!.id).to.not.equal('night-mail');
  });

  it('carries the open tasks of a bar, of its batches and labels, and drops them when they are done', async () => {
    const task = await makeTask(test.house, 'Relabel it', null);
    const about = (what: string, subject: string) =>
      test
        .db('tasks')
        .where('id', task.id)
        .update({ body: JSON.stringify({ ...task, what, subject }) });
    const whys = async (id: string) => (await row(id)).tasks.map(({ why }) => why);
    await about('bar', 'signal-red');
    expect(await whys('signal-red')).to.deep.equal(['Relabel it']);
    await about('batch', 'wr-261103');
    expect(await whys('waiting-room')).to.deep.equal(['Relabel it']);
    expect((await row('signal-red')).tasks).to.deep.equal([]);
    await test.db('tasks').where('id', task.id).update({ done_at: DAY });
    expect((await row('waiting-room')).tasks).to.deep.equal([]);
  });

  it('tries bars on another day and in another market without a trace', async () => {
    const before = JSON.stringify(await rows());
    const tries = (body: object) => go<TriedBar[]>('tries', 'POST', { body });
    const us = (await tries({ bars: ['lamp-room', 'branch-line', 'gone'], markets: ['US'] })).body;
    expect(us.map(({ id }) => id)).to.have.members(['lamp-room', 'branch-line']);
    expect(us.every(({ markets }) => markets.length === 1 && markets[0]!.market === 'US')).to.equal(true);
    const early = (await tries({ bars: ['lamp-room'], onDate: '2019-01-01' })).body[0]!;
    expect(early.verdict).to.not.equal(null);
    for (const wrong of [{ bars: 'all' }, { bars: ['x'], onDate: 'soon' }, { bars: ['x'], markets: [] }])
      expect((await tries(wrong)).status).to.equal(422);
    expect(JSON.stringify(await rows())).to.equal(before);
  });

  it('keeps ways of looking, as a whole, from a revision', async () => {
    const view = { name: 'Trouble', find: '', show: 'over', market: null, group: 'bound' };
    const put = (revision: number, views: object[]) =>
      go<RangeViews>('views', 'PUT', { body: { revision, views } });
    expect((await put(0, [view])).body).to.deep.equal({ views: [view], revision: 1 });
    expect((await put(0, [])).status).to.equal(409);
    expect((await go<RangeViews>('views', 'GET')).body.views).to.deep.equal([view]);
    for (const wrong of [
      { ...view, show: 'x' },
      { ...view, name: '' },
      { ...view, market: 'MOON' },
    ])
      expect((await put(1, [wrong])).status).to.equal(422);
  });

  it('says by which day the next pour of a bar must start, only where it sells', async () => {
    const days = (await go<Record<string, string>>('days', 'GET')).body;
    expect(Object.keys(days).length).to.be.above(0);
    const sold = new Map((await rows()).map(({ id, sold: count }) => [id, count]));
    for (const [id, day] of Object.entries(days)) {
      expect(day).to.match(/^\d{4}-\d{2}-\d{2}$/);
      expect(sold.get(id), id).to.be.above(0);
    }
  });

  it('finds a bar by any of its letters, whatever marks they carry', async () => {
    await createProduct(test.house, { name: 'Öl und Crème' });
    const found = async (find: string) =>
      (await wrapOverview(test.house, { find, putAway: false, page: 1 })).rows.map(({ name }) => name);
    for (const typed of ['öl', 'Öl', 'ol und', 'CREME', 'crème'])
      expect(await found(typed), typed).to.deep.equal(['Öl und Crème']);
  });

  it('finds few swaps that take names off all labels, as the bars stand once they are made', async () => {
    const ask = (mostMovedPct: number) =>
      go<RangeNames>('names', 'POST', { body: { onDate: DAY, mostMovedPct } });
    const { names, points, isCutShort } = (await ask(100)).body;
    expect([names > 20, points.length > 1, isCutShort]).to.deep.equal([true, true, false]);
    const named = async (formula: Formula, markets: string[]) => {
      const request = { format: 'proportia.assessment-request/1', formula, markets, onDate: DAY };
      const { body } = await go<Assessment>('assess', 'POST', { body: request });
      return new Set(body.declarables.filter(({ declare }) => declare).map(({ id }) => id)).size;
    };
    const { swaps, names: left } = points.find((one) =>
      one.swaps.every(({ from }) => !['sidings', 'evening-departure'].includes(from.id)),
    )!;
    let [before, after] = [0, 0];
    for (const { id, markets } of await rows()) {
      const { version } = (await go<{ version: { formula: Formula } }>('product', 'GET', { params: { id } }))
        .body;
      const to = (material: string) => swaps.find(({ from }) => from.id === material)?.to.id ?? material;
      const lines = version.formula.lines.map((line) => ({ ...line, material: to(line.material) }));
      const sold = markets.map(({ market }) => market);
      before += await named(version.formula, sold);
      after += await named({ ...version.formula, lines }, sold);
    }
    expect(before).to.equal(names);
    // A blend that holds what is swapped is made anew as well; a plain assessment of lines does not see that.
    expect(after).to.be.at.least(left);
    const half = (await ask(50)).body;
    expect(half.points.at(-1)?.names ?? names).to.be.at.least(points.at(-1)!.names);
    expect(half.points.every(({ moved }) => moved.every(({ pct }) => pct <= 50.001))).to.equal(true);
    expect((await go('names', 'POST', { body: { mostMovedPct: 0 } })).status).to.equal(422);
  });
});
