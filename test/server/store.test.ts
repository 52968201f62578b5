/** The store and the endpoints over it, each called as the server calls it. */
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import { rulebook } from '../../src/rulebook';
import { addDocument, allMaterials } from '../../src/server/repositories/materials';
import { findProduct, keptVersions } from '../../src/server/repositories/products';
import { findCraftFigures } from '../../src/server/repositories/settings';
import { findMaterials, searchMaterials, setCraftFigure } from '../../src/server/services/cupboard/cupboard';
import { overviewsSettled } from '../../src/server/store/overviews';
import { rangeData } from '../../src/server/services/range/range';
import {
  createProduct,
  keepProductVersion,
  saveProductFormula,
  worktableData,
} from '../../src/server/services/worktable/products';
import { snapshotOf } from '../../src/server/store/snapshot';
import { dayAfter } from '../../src/core/quantities/day';
import type { HttpFault } from '../../src/server/http';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

describe('the store', () => {
  const test = useDemo();

  const assessRoute = () => import('../../src/pages/api/v1/assess') as never as Promise<{ POST: APIRoute }>;
  const formulaRoute = () =>
    import('../../src/pages/api/v1/products/[id]/formula') as never as Promise<{ PUT: APIRoute }>;

  describe('store', () => {
    it('holds the demo range as its makers know it', async () => {
      const { rows } = await rangeData(test.house);
      const verdicts = Object.fromEntries(rows.map(({ name, verdict }) => [name, verdict]));
      expect(verdicts).to.deep.include({
        'First Light': 'clear',
        'Night Mail': 'tight',
        'Lamp Room': 'over',
      });
      const { closest } = rows.find(({ id }) => id === 'night-mail')!;
      expect(closest!.force).to.equal('certificate');
      expect(closest!.nominalPct).to.be.within(4.35, 4.45); // 5.5 % of fats reads 4.4 % cured
    });

    it('saves from the newest revision and writes nothing from an older one', async () => {
      const { version } = (await findProduct(test.db, 'first-light'))!;
      const changed = { ...version.formula, name: 'changed' };
      const save = (name: string, id = 'first-light') =>
        saveProductFormula(test.house, id, version.revision, { ...changed, name });
      expect(await save('changed')).to.have.nested.property('version.revision', version.revision + 1);
      expect(await save('late')).to.have.nested.property('stale.formula.name', 'changed');
      expect((await findProduct(test.db, 'first-light'))!.version.formula.name).to.equal('changed');
      const missing = await save('x', 'no-such').catch((fault: HttpFault) => fault.status);
      expect(missing).to.equal(404);
    });

    it('adds paper without overwriting; the newest certificate counts, older ones stay on file', async () => {
      const newer = {
        id: 'cert-new',
        materialId: 'coal-and-violets',
        type: 'certificate' as const,
        number: 'BA-1500',
        edition: '51st',
        issuedOn: DAY,
        issuer: 'Brackwater Aromatics',
        maxPct: 3.9,
      };
      await addDocument(test.db, newer);
      const held = (await allMaterials(test.db)).find(({ material }) => material.id === 'coal-and-violets')!;
      expect(held.documents.map(({ number }) => number)).to.deep.equal(['BA-1500', 'BA-1407']);
      const { limits } = (await snapshotOf(test.db, DAY)).material('coal-and-violets')!;
      expect(limits!.map(({ maxPct, from, to }) => [maxPct, from, to])).to.deep.equal([
        [3.9, DAY, null],
        [4.5, dayAfter(DAY, -214), dayAfter(DAY, -1)],
      ]);
      await test.db('documents').where('id', 'cert-new').delete();
    });

    it('of two certificates of one day counts the one filed later, in the limits and in what is told', async () => {
      const paper = (number: string, maxPct: number) => ({
        ...{ id: `same-${number}`, materialId: 'coal-and-violets', type: 'certificate' as const },
        ...{ number, edition: '51st', issuedOn: DAY, issuer: 'Brackwater Aromatics', maxPct },
      });
      await addDocument(test.db, paper('FIRST', 9));
      await addDocument(test.db, paper('SECOND', 3));
      const { stored, material } = await snapshotOf(test.db, DAY).then((snapshot) => ({
        stored: snapshot.stored.find((one) => one.material.id === 'coal-and-violets')!,
        material: snapshot.material('coal-and-violets')!,
      }));
      expect(stored.documents[0]!.number).to.equal('SECOND');
      const inForce = material.limits!.filter(({ from, to }) => (from ?? '') <= DAY && (to ?? '9') >= DAY);
      expect(inForce.map(({ maxPct }) => maxPct)).to.deep.equal([3]);
      await test.db('documents').whereIn('id', ['same-FIRST', 'same-SECOND']).delete();
    });

    it('keeps a maker’s own craft figure in place of the usual one until it is taken back', async () => {
      const figure = async () =>
        (await snapshotOf(test.db, DAY)).limits.find(({ id }) => id === 'craft-clay')!.maxPct;
      const usual = rulebook().craft.find(({ id }) => id === 'craft-clay')!.maxPct;
      expect(await figure()).to.equal(usual);
      await setCraftFigure(test.house, 'craft-clay', 2.5);
      expect(await figure()).to.equal(2.5);
      await setCraftFigure(test.house, 'craft-clay', null);
      expect(await figure()).to.equal(usual);
      expect(await findCraftFigures(test.db)).to.deep.equal({});
    });
  });

  describe('versions and new bars', () => {
    it('keeps a version under a name, frozen, and carries on from it', async () => {
      const { version } = (await findProduct(test.db, 'waiting-room'))!;
      const keep = (name: string, id = 'waiting-room') =>
        keepProductVersion(test.house, id, version.revision, name);
      const kept = await keep('spring');
      const working = (await findProduct(test.db, 'waiting-room'))!.version;
      expect(kept).to.deep.equal({ version: working });
      expect(working).to.include({ number: version.number + 1, name: null });
      const summer = { ...working.formula, name: 'summer' };
      await saveProductFormula(test.house, 'waiting-room', working.revision, summer);
      const [spring] = await keptVersions(test.db, 'waiting-room');
      expect(spring!.formula).to.deep.equal(version.formula);
      expect(await keep('late')).to.have.property('stale');
      expect(await keep('late', 'nowhere').catch((fault: HttpFault) => fault.status)).to.equal(404);
    });

    it('starts bars of the same name apart, each from a formula that stands', async () => {
      const [first, second] = [
        await createProduct(test.house, { name: 'Café No. 5' }),
        await createProduct(test.house, { name: 'Café No. 5' }),
      ];
      expect([first.id, second.id]).to.deep.equal(['cafe-no-5', 'cafe-no-5-2']);
      expect((await createProduct(test.house, { name: '夜行' })).id).to.equal('bar');
      const { rows } = await rangeData(test.house);
      const fresh = rows.find(({ id }) => id === 'cafe-no-5')!;
      expect(fresh.verdict).to.equal('clear');
      await overviewsSettled(test.db);
    });

    it('finds materials by name or ingredient name, the maker’s own first', async () => {
      const names = async (query: string) =>
        searchMaterials(await snapshotOf(test.db, DAY), query).map(({ material }) => material.name);
      expect((await names('petit'))[0]).to.equal('Petitgrain oil');
      expect(await names('simmondsia')).to.deep.equal(['Jojoba oil']);
      const found = (query: string) => snapshotOf(test.db, DAY).then((all) => searchMaterials(all, query));
      expect((await names('kaolin'))[0]).to.equal('White kaolin');
      expect((await names('sea salt'))[0]).to.match(/fine/i);
      expect(await names('zzz')).to.deep.equal([]);
      expect(await found('')).to.have.length(12);
    });

    it('finds one’s own materials of some kinds, which may take one another’s place', async () => {
      const found = await findMaterials(test.house, { query: '', ids: [], kinds: ['clay', 'fat'] });
      expect([...new Set(found.map(({ material }) => material.kind))].sort()).to.deep.equal(['clay', 'fat']);
      const own = [...(await snapshotOf(test.db, DAY)).own.values()];
      expect(found).to.have.length(own.filter(({ kind }) => kind === 'clay' || kind === 'fat').length);
    });

    it('gives the worktable what it needs to reckon by itself, in its own markets only', async () => {
      const { materials, rules, product } = await worktableData(test.house, 'lamp-room');
      expect(product.markets).to.deep.equal(['EU', 'UK']);
      expect(materials.map(({ id }) => id)).to.include.members(['clove-bud-oil', 'olive', 'water']);
      expect(
        rules.declarables.every(({ markets }) => markets.includes('EU') || markets.includes('UK')),
      ).to.equal(true);
    });
  });

  describe('endpoints', () => {
    it('assess: 200, 400, 413, 415 and 422, each with what to do', async () => {
      const { version, product } = (await findProduct(test.db, 'lamp-room'))!;
      const asked = {
        format: 'proportia.assessment-request/1',
        formula: version.formula,
        markets: product.markets,
        onDate: DAY,
      };
      const good = await call(assessRoute(), 'POST', '/api/v1/assess', sending(JSON.stringify(asked)));
      expect(good).to.have.nested.property('body.verdict', 'over');
      expect(good.status).to.equal(200);
      const status = async (body: string, type?: string) =>
        (await call(assessRoute(), 'POST', '/api/v1/assess', sending(body, type))).status;
      expect(await status('{"a":')).to.equal(400);
      expect(await status('\uD800')).to.equal(400);
      expect(await status('')).to.equal(400);
      expect(await status(' '.repeat(1024 * 1024 + 1))).to.equal(413);
      expect(await status('{}', 'text/plain')).to.equal(415);
      const bad = await call(
        assessRoute(),
        'POST',
        '/api/v1/assess',
        sending(JSON.stringify({ ...asked, onDate: 'soon' })),
      );
      expect(bad).to.deep.include({ status: 422 });
      expect(bad.body).to.have.nested.property('errors[0].path', 'onDate');
    });

    it('formula: saves, refuses what does not reckon and what is stale, and knows no other product', async () => {
      const { version } = (await findProduct(test.db, 'night-mail'))!;
      const put = (body: unknown, id = 'night-mail') =>
        call(formulaRoute(), 'PUT', '/', sending(JSON.stringify(body)), { id });
      const empty = { revision: version.revision, formula: { ...version.formula, lines: [] } };
      expect((await put(empty)).body).to.have.nested.property('errors[0].code', 'empty');
      expect((await put({ formula: version.formula })).status).to.equal(422);
      const first = await put({ revision: version.revision, formula: version.formula });
      expect(first).to.have.nested.property('body.version.revision', version.revision + 1);
      const late = await put({ revision: version.revision, formula: version.formula });
      expect(late.status).to.equal(409);
      expect(late).to.have.nested.property('body.stale.revision', version.revision + 1);
      expect((await put({ revision: 1, formula: version.formula }, '../etc')).status).to.equal(404);
    });
  });
});
