/** The cupboard over HTTP: own materials, papers, lots, mixes, the inbox, and bars' details and variations. */
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import { comparedSide, worktableData } from '../../src/server/services/worktable/products';
import { assessEverywhere } from '../../src/server/store/assessed';
import type { CupboardEntry } from '../../src/core/records/cupboard';
import { usesOf } from '../../src/server/services/cupboard/materials';
import { cupboardEntries, cupboardEntry } from '../../src/server/store/materials';
import { snapshotOf } from '../../src/server/store/snapshot';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

describe('the cupboard over the demo', () => {
  const test = useDemo();

  type Routes = Promise<{ [method: string]: APIRoute }>;
  const ROUTES = {
    materials: () => import('../../src/pages/api/v1/materials/index') as never as Routes,
    material: () => import('../../src/pages/api/v1/materials/[id]/index') as never as Routes,
    papers: () => import('../../src/pages/api/v1/materials/[id]/papers') as never as Routes,
    paper: () => import('../../src/pages/api/v1/materials/[id]/papers/[paper]') as never as Routes,
    lots: () => import('../../src/pages/api/v1/materials/[id]/lots/index') as never as Routes,
    lot: () => import('../../src/pages/api/v1/materials/[id]/lots/[lot]') as never as Routes,
    mixes: () => import('../../src/pages/api/v1/mixes/index') as never as Routes,
    mix: () => import('../../src/pages/api/v1/mixes/[id]') as never as Routes,
    moulds: () => import('../../src/pages/api/v1/moulds') as never as Routes,
    inbox: () => import('../../src/pages/api/v1/inbox/index') as never as Routes,
    details: () => import('../../src/pages/api/v1/products/[id]/details') as never as Routes,
    duplicate: () => import('../../src/pages/api/v1/products/[id]/duplicate') as never as Routes,
  };

  async function ask(
    route: keyof typeof ROUTES,
    method: string,
    body?: unknown,
    params: Record<string, string> = {},
  ) {
    const init = body === undefined ? {} : sending(JSON.stringify(body));
    const { status, body: told } = await call(ROUTES[route](), method, '/', init, params);
    return {
      status,
      body: told as unknown as CupboardEntry & {
        entry?: CupboardEntry;
        errors: { path: string; code: string }[];
      },
    };
  }

  describe('own materials', () => {
    it('are put in, changed and taken out; what a bar or mix uses stays', async () => {
      const nettle = {
        name: 'Nettle leaf, ours',
        kind: 'botanical',
        inci: [{ name: 'Urtica Dioica Leaf Powder', sharePct: 100 }],
      };
      const made = await ask('materials', 'POST', { material: nettle, supplier: 'our garden' });
      expect(made).to.deep.include({ status: 201 });
      expect(made.body.material.id).to.equal('nettle-leaf-ours');
      const own = {
        id: 'own-ceiling',
        subject: { type: 'material', id: 'nettle-leaf-ours' },
        maxPct: 1.5,
        basis: 'fats',
        force: 'craft',
      };
      const changed = await ask(
        'material',
        'PUT',
        { revision: 1, material: { ...nettle, limits: [own] } },
        { id: 'nettle-leaf-ours' },
      );
      expect(changed.body.entry!.material.limits![0]!.maxPct).to.equal(1.5);
      expect(changed.body.entry!.supplier).to.equal('our garden');
      const late = { revision: 1, material: nettle, supplier: null };
      const stale = await ask('material', 'PUT', late, { id: 'nettle-leaf-ours' });
      expect(stale).to.have.nested.property('body.stale.revision', 2);
      expect(stale.status).to.equal(409);
      const cleared = await ask('material', 'PUT', { ...late, revision: 2 }, { id: 'nettle-leaf-ours' });
      expect(cleared.body.entry!.supplier).to.equal(null);
      expect(cleared.body.entry!.material.limits).to.have.length(1);
      expect((await snapshotOf(test.db, DAY)).material('nettle-leaf-ours')!.limits).to.have.length(1);
      expect((await ask('material', 'DELETE', undefined, { id: 'nettle-leaf-ours' })).status).to.equal(200);
      expect((await ask('material', 'GET', undefined, { id: 'nettle-leaf-ours' })).status).to.equal(404);
      const used = await ask('material', 'DELETE', undefined, { id: 'palmarosa-oil' });
      expect(used.status).to.equal(422);
      expect(used.body.errors[0]!.code).to.equal('in-use');
      expect(JSON.stringify(used.body)).to.contain('Ticket Office').and.to.contain('Evening departure');
    });

    it('cannot claim to bind, lack what their kind needs, or carry what is not asked for', async () => {
      const post = async (material: object) =>
        (await ask('materials', 'POST', { material })).body.errors?.[0]?.code;
      const clay = { name: 'Clay', kind: 'clay' };
      const limit = {
        id: 'x',
        subject: { type: 'material', id: 'x' },
        maxPct: 1,
        basis: 'cured',
        force: 'law',
      };
      expect(await post({ ...clay, limits: [limit] })).to.equal('not-craft');
      expect(await post({ name: 'Fat', kind: 'fat' })).to.equal('saponification-missing');
      expect(
        await post({ ...clay, constituents: [{ id: 'a', lowPct: 3, typicalPct: 2, highPct: 4 }] }),
      ).to.equal('range-order');
      expect(await post({ kind: 'clay' })).to.equal('not-text');
      expect(await post({ name: 'X', kind: 'mud' })).to.equal('not-allowed');
      const odd = await ask('materials', 'POST', {
        material: { ...clay, standing: 'confirmed', madeOf: [] },
      });
      expect(odd.body.written).to.not.have.any.keys('standing', 'madeOf');
      expect(await post({ ...clay, behaviour: { grainUm: 'x' } })).to.equal('not-a-list');
      await ask('material', 'DELETE', undefined, { id: odd.body.material.id });
    });

    it('of the library are taken as they are, once, and keep what the library knows of them', async () => {
      const taken = await ask('materials', 'PUT', {
        library: 'lavender-oil',
        supplier: 'Ninefold Botanicals',
      });
      expect(taken.body.material).to.include({ name: 'Lavender oil' });
      expect(taken.body.isFromLibrary).to.equal(true);
      expect((await ask('materials', 'PUT', { library: 'lavender-oil' })).body.supplier).to.equal(
        'Ninefold Botanicals',
      );
      expect((await ask('materials', 'PUT', { library: 'moon-dust' })).status).to.equal(404);
      await ask('material', 'DELETE', undefined, { id: 'lavender-oil' });
    });
  });

  describe('papers on file', () => {
    const revision = {
      type: 'certificate',
      number: 'BA-1407-R2',
      edition: '51st',
      issuedOn: '2026-11-18',
      issuer: 'Brackwater Aromatics',
      maxPct: 3.9,
      category: '9',
    };

    it('change the verdict from their day on, say which counts and why, and can be taken off again', async () => {
      const verdict = async () =>
        (await assessEverywhere(test.house, 'night-mail')).assessment.markets[0]!.verdict;
      expect(await verdict()).to.equal('tight');
      const params = { id: 'coal-and-violets' };
      const filed = await ask('papers', 'POST', { papers: [revision], inbox: 'ba-1407-r2' }, params);
      expect(filed.status).to.equal(201);
      expect(filed.body.papers.certificate!.reasons[0])
        .to.contain('the newest of 2')
        .and.to.contain('BA-1407 of');
      expect(await verdict()).to.equal('over');
      const { papers } = await worktableData(test.house, 'night-mail');
      expect(papers['coal-and-violets']!.certificate!.paper.number).to.equal('BA-1407-R2');
      const inbox = (await call(ROUTES.inbox(), 'GET', '/')).body as unknown as {
        papers: { id: string; filedOn: string | null }[];
      };
      expect(inbox.papers.find(({ id }) => id === 'ba-1407-r2')!.filedOn).to.equal(DAY);
      const { id } = filed.body.papers.certificate!.paper;
      await ask('paper', 'DELETE', undefined, { ...params, paper: id });
      expect(await verdict()).to.equal('tight');
      expect((await ask('paper', 'DELETE', undefined, { ...params, paper: id })).status).to.equal(404);
    });

    it('with constituents take the place of typical ones; an empty or odd paper is refused whole', async () => {
      const constituents = [{ id: 'citral', lowPct: 70, typicalPct: 72, highPct: 74 }];
      const declared = {
        type: 'allergens',
        number: 'NB-1',
        issuedOn: '2026-11-01',
        issuer: 'N',
        constituents,
      };
      const params = { id: 'litsea-cubeba-oil' };
      const filed = await ask('papers', 'POST', { papers: [declared] }, params);
      expect(filed.body.material.constituents).to.deep.equal(constituents);
      const before = (await cupboardEntry(test.house, params.id)).papers.allergens!.others.length;
      const odd = { ...declared, issuedOn: 'soon' };
      expect((await ask('papers', 'POST', { papers: [declared, odd] }, params)).status).to.equal(422);
      expect((await cupboardEntry(test.house, params.id)).papers.allergens!.others.length).to.equal(before);
      expect((await ask('papers', 'POST', { papers: [declared] }, { id: 'nothing' })).status).to.equal(404);
      await ask('paper', 'DELETE', undefined, { ...params, paper: filed.body.papers.allergens!.paper.id });
    });
  });

  describe('lots', () => {
    it('are added, used up, and removed; no more can be left than was bought', async () => {
      const lot = {
        supplier: 'H & D',
        code: 'X 1',
        receivedOn: '2026-11-01',
        quantityG: 500,
        leftG: 500,
        price: 12,
      };
      const params = { id: 'kaolin' };
      const added = await ask('lots', 'POST', lot, params);
      const made = added.body.lots.find(({ code }) => code === 'X 1')!;
      expect(made.id).to.equal('kaolin-x-1');
      const at = { ...params, lot: made.id };
      const used = await ask('lot', 'PUT', { ...lot, revision: 1, leftG: 200 }, at);
      expect(used.body.entry!.lots.find(({ id }) => id === made.id)!.leftG).to.equal(200);
      const late = await ask('lot', 'PUT', { ...lot, revision: 1, leftG: 300 }, at);
      expect(late.status).to.equal(409);
      const stands = (await cupboardEntry(test.house, 'kaolin')).lots.find(({ id }) => id === made.id)!;
      expect(stands).to.include({ leftG: 200, revision: 2 });
      expect((await ask('lot', 'PUT', { ...lot, revision: 2, leftG: 600 }, at)).status).to.equal(422);
      expect((await ask('lot', 'PUT', { ...lot, revision: 2 }, { ...at, id: 'olive' })).status).to.equal(404);
      expect((await ask('lots', 'POST', { ...lot, quantityG: -1 }, params)).status).to.equal(422);
      expect((await ask('lot', 'DELETE', undefined, { ...params, lot: made.id })).status).to.equal(200);
      expect((await ask('lot', 'DELETE', undefined, { ...params, lot: made.id })).status).to.equal(404);
    });

    it('price a bar, the newest opened first', async () => {
      const { prices } = await worktableData(test.house, 'first-light');
      expect(prices.olive).to.be.closeTo(164 / 20000, 1e-12);
      expect(prices['sodium-hydroxide']).to.be.closeTo(39 / 10000, 1e-12);
    });
  });

  describe('mixes', () => {
    it('are used through their parts, change with them, and refuse what cannot be mixed', async () => {
      const entries = await cupboardEntries(test.house);
      const pine = entries.find(({ material }) => material.id === 'scots-pine-oil')!;
      expect(pine.usedIn).to.equal(1);
      expect((await usesOf(test.house, 'scots-pine-oil')).some).to.deep.equal([
        { product: 'goods-yard', name: 'Goods Yard', through: 'Sidings blend' },
      ]);
      const parts = [
        { material: 'olive', parts: 9 },
        { material: 'kaolin', parts: 1 },
      ];
      const made = await ask('mixes', 'POST', { name: 'Wetted kaolin', parts });
      expect(made.body.material).to.include({ id: 'wetted-kaolin', kind: 'fat' });
      const change = { name: 'Wetted kaolin', parts: [{ material: 'kaolin', parts: 1 }], revision: 1 };
      const changed = await ask('mix', 'PUT', change, { id: 'wetted-kaolin' });
      expect(changed).to.have.nested.property('body.entry.revision', 2);
      const late = await ask('mix', 'PUT', change, { id: 'wetted-kaolin' });
      expect(late.status).to.equal(409);
      expect(late).to.have.nested.property('body.stale.revision', 2);
      const self = await ask(
        'mix',
        'PUT',
        { ...change, revision: 2, parts: [{ material: 'wetted-kaolin', parts: 1 }] },
        { id: 'wetted-kaolin' },
      );
      expect(self.status).to.equal(422);
      expect((await ask('mix', 'PUT', change, { id: 'olive' })).status).to.equal(404);
      expect(
        (await ask('mixes', 'POST', { name: 'Sour', parts: [{ material: 'citric-acid', parts: 1 }] })).status,
      ).to.equal(422);
      expect(
        (
          await ask(
            'material',
            'PUT',
            { revision: 1, material: { name: 'X', kind: 'clay' } },
            { id: 'wetted-kaolin' },
          )
        ).status,
      ).to.equal(422);
      await ask('material', 'DELETE', undefined, { id: 'wetted-kaolin' });
    });
  });

  describe('bars and moulds', () => {
    it('keep their details; a variation starts with the formula and no market of its own', async () => {
      const { product, version } = await worktableData(test.house, 'signal-red');
      const details = {
        ...product,
        identity: 'Soap with madder',
        markets: ['EU', 'US'],
        firstPlacedOn: { EU: '2026-01-02' },
      };
      expect((await ask('details', 'PUT', details, { id: 'signal-red' })).status).to.equal(200);
      const late = await ask('details', 'PUT', { ...details, name: 'Late' }, { id: 'signal-red' });
      expect(late.status).to.equal(409);
      expect(late).to.have.nested.property('body.stale.revision', product.revision + 1);
      const after = await worktableData(test.house, 'signal-red');
      expect(after.product).to.deep.include({ identity: 'Soap with madder', markets: ['EU', 'US'] });
      expect(after.version.formula).to.deep.equal(version.formula);
      const wrong = async (more: object) =>
        (await ask('details', 'PUT', { ...details, ...more }, { id: 'signal-red' })).body.errors?.[0]?.path;
      expect(await wrong({ markets: [] })).to.equal('markets');
      expect(await wrong({ markets: ['MOON'] })).to.equal('markets');
      expect(await wrong({ firstPlacedOn: { EU: '2026-13-01' } })).to.equal('firstPlacedOn');
      expect(await wrong({ name: '  ' })).to.equal('name');
      const copy = await ask('duplicate', 'POST', { name: 'Signal Amber' }, { id: 'signal-red' });
      expect(copy.status).to.equal(201);
      const amber = await comparedSide(test.house, 'signal-amber', null);
      expect(amber.formula.lines).to.deep.equal(version.formula.lines);
      expect(amber.product).to.deep.include({ firstPlacedOn: {}, netMassG: null });
    });

    it('moulds are kept as a list, each with a name and a measure', async () => {
      const mould = { id: 'm', name: 'Tin', volumeMl: 900, cavities: 9 };
      const { mouldsRevision: revision } = await worktableData(test.house, 'first-light');
      expect((await ask('moulds', 'PUT', { revision, moulds: [mould] })).status).to.equal(200);
      expect((await worktableData(test.house, 'first-light')).moulds).to.deep.equal([mould]);
      const late = await ask('moulds', 'PUT', { revision, moulds: [] });
      expect(late.status).to.equal(409);
      expect(late).to.have.nested.property('body.moulds.0.name', 'Tin');
      const refused = async (moulds: unknown) => (await ask('moulds', 'PUT', { revision, moulds })).status;
      expect(await refused([{ ...mould, volumeMl: 0 }])).to.equal(422);
      expect(await refused('many')).to.equal(422);
    });

    it('versions that are not there are told apart from bars that are not there', async () => {
      const fault = async (id: string, number: number | null) =>
        comparedSide(test.house, id, number).then(
          () => 'none',
          (error: { errors: { code: string }[] }) => error.errors[0]!.code,
        );
      expect(await fault('first-light', 99)).to.equal('unknown-version');
      expect(await fault('nowhere', null)).to.equal('unknown-product');
    });
  });
});
