/** The watch over changes: previews equal two single assessments, write nothing, and are refused once they are stale. */
import { expect } from 'chai';
import type { Assessment } from '../../src/core/formula/answer';
import { assess } from '../../src/core/assess';
import { requestOf, standOf } from '../../src/core/change/effects';
import type { Change, Effect } from '../../src/core/change/types';
import type { Formula, Market } from '../../src/core/formula/types';
import { rankSubstitutes } from '../../src/core/change/substitutes';
import type { ChangeView, RankedSubstitute, Task } from '../../src/core/records/watch';
import { seededRandom } from '../../src/core/numerics/random';
import { MARKETS } from '../../src/core/formula/types';
import { storesOf } from '../../src/server/services/watch/change-store';
import { findProduct } from '../../src/server/repositories/products';
import { caller } from './call';
import { DAY, useDemo } from './database';
import { many } from '../support/many';

const ROUTES = {
  changes: () => import('../../src/pages/api/v1/changes'),
  change: () => import('../../src/pages/api/v1/changes/[id]'),
  accept: () => import('../../src/pages/api/v1/changes/[id]/accept'),
  decline: () => import('../../src/pages/api/v1/changes/[id]/decline'),
  tasks: () => import('../../src/pages/api/v1/tasks'),
  done: () => import('../../src/pages/api/v1/tasks/[id]/done'),
  away: () => import('../../src/pages/api/v1/products/[id]/away'),
  assess: () => import('../../src/pages/api/v1/assess'),
  formula: () => import('../../src/pages/api/v1/products/[id]/formula'),
  substitutes: () => import('../../src/pages/api/v1/materials/[id]/substitutes'),
};

const go = caller(ROUTES);

/** What a refusal says. */
interface Refused {
  errors?: { path: string; code: string }[];
}

async function preview(change: unknown): Promise<ChangeView & { effects: Effect[]; unchanged: number }> {
  const begun = await go<{ id: string }>('changes', 'POST', { body: { change } });
  expect(begun.status, JSON.stringify(begun.body)).to.equal(202);
  for (;;) {
    const { body } = await go<ChangeView>('change', 'GET', { params: { id: begun.body.id } });
    if (body.state === 'done') return body as ChangeView & { effects: Effect[]; unchanged: number };
    expect(body.state).to.equal('running');
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

const certificate = (maxPct: number, more: object = {}) => ({
  type: 'certificate',
  number: `X-${maxPct}`,
  edition: '51st',
  issuedOn: DAY,
  issuer: 'Ninefold Botanicals',
  maxPct,
  category: '9',
  ...more,
});

const paperChange = (material: string, maxPct: number) => ({
  kind: 'paper',
  material,
  paper: certificate(maxPct),
});

describe('changes before they are accepted', () => {
  const demo = useDemo();

  const dump = async () => {
    const tables = [
      'products',
      'formula_versions',
      'materials',
      'documents',
      'lots',
      'settings',
      'batches',
      'tasks',
    ];
    const rows = [];
    for (const table of tables) rows.push(await demo.db(table).select());
    return JSON.stringify(rows);
  };

  it('finds what a stricter certificate does, worst first, and writes nothing but the look', async () => {
    const before = await dump();
    const { effects, unchanged, words } = await preview(paperChange('coal-and-violets', 0.5));
    expect(await dump()).to.equal(before);
    expect(words).to.contain('Certificate X-0.5');
    const bar = effects.find((one) => one.what === 'bar' && one.id === 'night-mail' && one.market === 'EU')!;
    expect([bar.worse, bar.after?.verdict]).to.deep.equal([true, 'over']);
    expect(bar.after!.boundBy).to.match(/^cert-x-0-5/);
    expect(bar.hands.sold).to.be.above(0);
    expect(effects.some(({ what }) => what === 'batch')).to.equal(true);
    expect(unchanged).to.be.above(10);
    const order = effects.map(({ worse, hands }) => [Number(!worse), -hands.sold]);
    for (const [at, [worse, sold]] of order.entries()) {
      const [next, nextSold] = order[at + 1] ?? [1, 0];
      expect(worse! < next! || (worse === next && sold! <= nextSold!), `row ${at}`).to.equal(true);
    }
  });

  /** The same row by two single assessments. */
  const alone = async (change: Change, effect: Effect) => {
    const { before, after } = await storesOf(demo.house, change);
    const { product, version } = (await findProduct(demo.db, effect.id))!;
    const stand = (formula: Formula, store: typeof before, onDate: string) => {
      const result = assess(requestOf(product, formula, onDate), store);
      return result.ok ? standOf(result.assessment, effect.market) : null;
    };
    const day = change.kind === 'day' ? change.onDate : demo.house.today;
    return [stand(version.formula, before, demo.house.today), stand(version.formula, after, day)];
  };

  it('counts a paper of the day of the one on file, as it will once it is filed', async () => {
    const row = (await demo.db('documents').where('number', 'BA-1407').first()) as { issued_on: string };
    const paper = certificate(0.5, { issuedOn: row.issued_on });
    const { effects } = await preview({ kind: 'paper', material: 'coal-and-violets', paper });
    expect(effects.some(({ worse }) => worse)).to.equal(true);
  });

  it('equals two single assessments in every row, over random papers, limits and days', async () => {
    const random = seededRandom(Number(process.env.CHANGES_SEED ?? 41));
    const pick = <T>(list: readonly T[]) => list[Math.floor(list.length * random.uniform())]!;
    const held: string[] = await demo.db('product_materials').distinct('material_id').pluck('material_id');
    const own: string[] = await demo.db('materials').whereIn('id', held).whereNot('kind', 'mix').pluck('id');
    let rows = 0;
    for (let one = 0; one < Number(process.env.CHANGES ?? many(14, 40)); one++) {
      const kind = pick(['paper', 'limit', 'day'] as const);
      const maxPct = Number((5 * random.uniform()).toFixed(3));
      const change: Change =
        kind === 'paper'
          ? ({ ...paperChange(pick(own), maxPct) } as Change)
          : kind === 'day'
            ? {
                kind,
                onDate: pick([
                  '2026-07-31',
                  '2026-08-01',
                  '2027-01-15',
                  '2028-07-31',
                  '2028-08-01',
                  '2025-02-02',
                ]),
              }
            : {
                kind,
                limit: {
                  id: `own-${one}`,
                  subject: pick([
                    { type: 'material', id: pick(held) },
                    { type: 'constituent', id: pick(['linalool', 'limonene', 'eugenol']) },
                    { type: 'kind', id: 'clay' },
                  ]),
                  maxPct,
                  basis: pick(['cured', 'pour', 'fats'] as const),
                  force: 'standard',
                  markets: pick([null, ['EU'] as Market[]]),
                },
              };
      const { effects, unchanged } = await preview(change);
      const bars = effects.filter(({ what }) => what === 'bar');
      for (const effect of bars) {
        rows++;
        expect([effect.before, effect.after]).to.deep.equal(await alone(change, effect));
      }
      // What is counted as unchanged is, bar for bar.
      const products: string[] = await demo.db('products').whereNull('put_away_on').pluck('id');
      let same = 0;
      for (const id of products)
        for (const market of (await findProduct(demo.db, id))!.product.markets) {
          if (bars.some((row) => row.id === id && row.market === market)) continue;
          const [was, is] = await alone(change, { id, market } as Effect);
          expect(is, `${kind} ${id} ${market}`).to.deep.equal(was);
          same++;
        }
      expect(same).to.be.at.most(unchanged);
    }
    expect(rows).to.be.above(20);
  });

  it('refuses what is not on file with the path to its field', async () => {
    const refused = async (change: unknown) => {
      const { status, body } = await go<Refused>('changes', 'POST', { body: { change } });
      return [status, body.errors?.[0]?.path, body.errors?.[0]?.code];
    };
    expect(await refused({ kind: 'none' })).to.deep.equal([422, 'change.kind', 'unknown-kind']);
    expect(await refused(null)).to.deep.equal([422, 'change', 'not-an-object']);
    expect(await refused(paperChange('olive-of-nowhere', 1))).to.deep.equal([
      422,
      'change.material',
      'unknown-material',
    ]);
    expect(await refused({ kind: 'day', onDate: '2026-02-30' })).to.deep.equal([
      422,
      'change.onDate',
      'not-a-day',
    ]);
    expect(await refused({ kind: 'edition', edition: '1900' })).to.deep.equal([
      422,
      'change.edition',
      'unknown-edition',
    ]);
    expect(await refused({ kind: 'lot', lot: 'none', quarantine: 'x' })).to.deep.equal([
      422,
      'change.lot',
      'unknown-lot',
    ]);
    expect(await refused({ kind: 'swap', from: 'shea', to: 'shea', by: 'mass' })).to.deep.equal([
      422,
      'change.to',
      'same',
    ]);
    expect(await refused({ kind: 'market', product: 'night-mail', market: 'EU' })).to.deep.equal([
      422,
      'change.market',
      'already-there',
    ]);
    expect((await go('change', 'GET', { params: { id: 'none' } })).status).to.equal(404);
  });

  it('accepts once, with tasks that end with what was done; refuses the stale and the decided', async () => {
    const first = await preview(paperChange('coal-and-violets', 0.6));
    const second = await preview(paperChange('coal-and-violets', 0.7));
    const accepted = await go<{ tasks: Task[] }>('accept', 'POST', {
      params: { id: first.id },
      body: { note: 'Seen.' },
    });
    expect(accepted.status).to.equal(200);
    expect(accepted.body.tasks.map(({ kind }) => kind)).to.include.members(['rework', 'stopSelling']);
    const now = await go<Assessment>('assess', 'POST', {
      body: requestOf(
        { markets: ['EU'], firstPlacedOn: {} },
        (await findProduct(demo.db, 'night-mail'))!.version.formula,
        DAY,
      ),
    });
    expect(now.body.verdict).to.equal('over');
    const stale = await go<Refused>('accept', 'POST', { params: { id: second.id }, body: {} });
    expect([stale.status, stale.body.errors?.[0]?.code]).to.deep.equal([409, 'stale']);
    expect((await go('accept', 'POST', { params: { id: first.id }, body: {} })).status).to.equal(409);
    const declined = await go('decline', 'POST', {
      params: { id: second.id },
      body: { reason: 'Superseded.' },
    });
    expect(declined.status).to.equal(200);
    expect(
      (await go('decline', 'POST', { params: { id: second.id }, body: { reason: 'Again.' } })).status,
    ).to.equal(409);
    const { tasks } = (await go<{ tasks: Task[] }>('tasks', 'GET')).body;
    const [task] = tasks;
    expect((await go('done', 'POST', { params: { id: task!.id }, body: { note: '' } })).status).to.equal(422);
    const done = await go<Task>('done', 'POST', {
      params: { id: task!.id },
      body: { note: 'Halved the scent.' },
    });
    expect(done.body.doneNote).to.equal('Halved the scent.');
    expect((await go('done', 'POST', { params: { id: task!.id }, body: { note: 'x' } })).status).to.equal(
      409,
    );
  });
});

describe('changes of bars, lots, markets and editions', () => {
  const demo = useDemo();

  it('swaps a scent in every bar that holds it, gram for gram or at the same headroom, and writes what was seen', async () => {
    const formulaOf = async (id: string) => (await findProduct(demo.db, id))!.version.formula;
    const was = await formulaOf('night-mail');
    const line = was.lines.find(({ material }) => material === 'coal-and-violets')!;
    const proven: string[] = await demo.db('documents').where('type', 'certificate').pluck('material_id');
    const to = proven.find((id) => !was.lines.some(({ material }) => material === id))!;
    const plain = await preview({ kind: 'swap', from: 'coal-and-violets', to, by: 'mass' });
    const same = await preview({ kind: 'swap', from: 'coal-and-violets', to, by: 'headroom' });
    const of = ({ effects }: { effects: Effect[] }) =>
      effects.find(({ id, market }) => id === 'night-mail' && market === 'EU')!;
    expect(plain.effects.every(({ what }) => what === 'bar')).to.equal(true);
    expect(of(same).after!.headroomPct).to.be.closeTo(of(same).before!.headroomPct!, 0.5);
    expect((await go('accept', 'POST', { params: { id: plain.id }, body: {} })).status).to.equal(200);
    const next = (await formulaOf('night-mail')).lines.find(({ id }) => id === line.id)!;
    expect([next.material, next.amount]).to.deep.equal([to, line.amount]);
    // The bar changed, so the other preview is stale.
    expect((await go('accept', 'POST', { params: { id: same.id }, body: {} })).status).to.equal(409);
  });

  it('follows a bad lot into its batches, and holds it back once accepted', async () => {
    const [{ lot_id: lot }] = (await demo.db('stock_movements').whereNotNull('batch_id').limit(1)) as [
      { lot_id: string },
    ];
    const drew: string[] = await demo
      .db('stock_movements')
      .where('lot_id', lot)
      .whereNotNull('batch_id')
      .distinct('batch_id')
      .pluck('batch_id');
    const { id, effects } = await preview({ kind: 'lot', lot, quarantine: 'Smells of paint.' });
    const batches = new Set(effects.map((one) => one.id));
    expect(effects.every(({ what }) => what === 'batch')).to.equal(true);
    expect(batches.size).to.be.above(0);
    expect(drew).to.include.members([...batches]);
    await go('accept', 'POST', { params: { id }, body: {} });
    const [{ body }] = (await demo.db('lots').where('id', lot)) as [{ body: string }];
    expect((JSON.parse(body) as { quarantine: string }).quarantine).to.equal('Smells of paint.');
  });

  it('touches what was poured and printed of a bar that is put away, and not the bar itself', async () => {
    const change = {
      kind: 'limit',
      limit: {
        id: 'own',
        subject: { type: 'material', id: 'olive' },
        maxPct: 0.01,
        basis: 'cured',
        force: 'standard',
        markets: ['EU'],
      },
    };
    const ids = async () =>
      (await preview(change)).effects.map(({ what, id, product }) => `${product} ${what} ${id}`);
    const held: string[] = await demo
      .db('product_materials')
      .where('material_id', 'olive')
      .pluck('product_id');
    const before = (await ids()).filter((row) => held.includes(row.split(' ')[0]!));
    for (const id of held) expect((await go('away', 'PUT', { params: { id } })).status).to.equal(200);
    const after = await ids();
    expect(before.some((row) => row.includes(' bar '))).to.equal(true);
    expect(
      after.filter((row) => / (bar|version) /.test(row) && held.includes(row.split(' ')[0]!)),
    ).to.deep.equal([]);
    const out = before.filter((row) => / (batch|issued) /.test(row));
    expect(out.length).to.be.above(0);
    expect(after).to.include.members(out);
    for (const id of held) await go('away', 'DELETE', { params: { id } });
  });

  it('brings a bar to a market with the day it came', async () => {
    const { product } = (await findProduct(demo.db, 'first-light'))!;
    const market = MARKETS.find((one) => !product.markets.includes(one))!;
    const { id, effects } = await preview({ kind: 'market', product: 'first-light', market });
    expect(effects.map((one) => [one.id, one.market, one.before])).to.deep.equal([
      ['first-light', market, null],
    ]);
    await go('accept', 'POST', { params: { id }, body: {} });
    const { product: after } = (await findProduct(demo.db, 'first-light'))!;
    expect([after.markets.at(-1), after.firstPlacedOn[market]]).to.deep.equal([market, DAY]);
  });

  it('an allergen list moved by a day changes exactly the rows it should, and an edition can be gone back on', async () => {
    const { before } = await storesOf(demo.house, { kind: 'day', onDate: DAY });
    const moved = (day: string) => ({
      kind: 'edition',
      edition: {
        edition: `moved to ${day}`,
        dated: DAY,
        title: 'One list moved',
        limits: before.limits.filter(({ force }) => force !== 'craft'),
        declarables: before.declarables.map((one) =>
          one.markets.includes('EU') && one.allFrom && one.allFrom > DAY ? { ...one, newFrom: day } : one,
        ),
      },
    });
    const [today, tomorrow] = [DAY, '2026-11-25'];
    expect(tomorrow > today).to.equal(true);
    const a = await preview(moved(today));
    const b = await preview(moved(tomorrow));
    const named = (view: { effects: Effect[] }) =>
      new Set(
        view.effects.filter(({ what, market }) => what === 'bar' && market === 'EU').map(({ id }) => id),
      );
    // What is named from today on is named today; what is named from tomorrow on is not yet.
    const listed = (effect: Effect) =>
      (effect.after?.declares.length ?? 0) - (effect.before?.declares.length ?? 0);
    for (const effect of b.effects) expect(listed(effect), `${effect.id} ${effect.market}`).to.be.at.most(0);
    for (const id of named(a)) expect(a.effects.some((one) => one.id === id)).to.equal(true);
    expect((await go('accept', 'POST', { params: { id: b.id }, body: {} })).status).to.equal(200);
    const back = await preview({ kind: 'edition', edition: before.edition });
    expect((await go('accept', 'POST', { params: { id: back.id }, body: {} })).status).to.equal(200);
    const again = await preview({ kind: 'day', onDate: DAY });
    expect(again.effects).to.deep.equal([]);
  });

  it('cancels a look, and tells of one that was ended by a restart', async () => {
    const begun = await go<{ id: string }>('changes', 'POST', {
      body: { change: { kind: 'day', onDate: '2028-01-01' } },
    });
    const { id } = begun.body;
    const ended = await go<ChangeView>('change', 'DELETE', { params: { id } });
    expect(['cancelled', 'done']).to.include(ended.body.state);
    const listed = (await go<{ changes: ChangeView[] }>('changes', 'GET')).body.changes;
    expect(listed.map((one) => one.id)).to.include(id);
  });
});

describe('what could take a material’s place, over HTTP', () => {
  const held = useDemo();

  it('names others of its kind from cupboard and library, ranked, for every bar that holds it', async () => {
    const ask = (id: string) =>
      go<{ bars: number; substitutes: RankedSubstitute[] }>('substitutes', 'GET', { params: { id } });
    const { body } = await ask('olive');
    expect(body.bars).to.be.above(5);
    const ids = body.substitutes.map(({ id }) => id);
    expect(ids).to.not.include('olive');
    expect(new Set(ids).size).to.equal(ids.length);
    expect(body.substitutes.some(({ isOwn }) => isOwn)).to.equal(true);
    expect(body.substitutes.some(({ priceRatio }) => priceRatio !== null)).to.equal(true);
    expect(body.substitutes).to.deep.equal(rankSubstitutes(body.substitutes));
    expect(body.substitutes.every(({ misclaimed }) => Object.keys(misclaimed).length === 0)).to.equal(true);
    const bar = await held.db('products').where('id', 'snow-plough').first('body');
    await held.db('wraps').where('product_id', 'snow-plough').delete();
    const said = JSON.stringify({ ...JSON.parse(bar.body), note: 'Scrubs, and is free of nuts: nut free.' });
    await held.db('products').where('id', 'snow-plough').update({ body: said });
    const claiming = (await ask('rye-bran')).body.substitutes;
    const shell = claiming.find(({ id }) => id.includes('walnut'));
    expect(shell?.misclaimed).to.deep.equal({ nutFree: 1 });
    expect(claiming.some(({ misclaimed }) => !misclaimed.nutFree)).to.equal(true);
    expect((await ask('kaolin')).status).to.equal(200);
    expect((await ask('stardust')).status).to.equal(404);
  });
});
