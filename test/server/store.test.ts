/** The store and the endpoints over it, each called as the server calls it. */
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import { rulebook } from '../../src/rulebook';
import { addDocument, allMaterials } from '../../src/server/repositories/materials';
import { findProduct, keepVersion, keptVersions, saveFormula } from '../../src/server/repositories/products';
import { findCraftFigures, putCraftFigure } from '../../src/server/repositories/settings';
import { searchMaterials, storedFor } from '../../src/server/services/cupboard';
import { createProduct, rangeOverview, worktableData } from '../../src/server/services/products';
import { daysBefore } from '../../src/demo/days';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

describe('the store', () => {
  const test = useDemo();

  const assessRoute = () => import('../../src/pages/api/v1/assess') as never as Promise<{ POST: APIRoute }>;
  const formulaRoute = () =>
    import('../../src/pages/api/v1/products/[id]/formula') as never as Promise<{ PUT: APIRoute }>;

  describe('store', () => {
    it('holds the demo range as its makers know it', async () => {
      const range = await rangeOverview(test.db);
      const verdicts = Object.fromEntries(
        range.map(({ product, result }) => [product.name, result.ok && result.assessment.verdict]),
      );
      expect(verdicts).to.deep.include({
        'First Light': 'clear',
        'Night Mail': 'tight',
        'Lamp Room': 'over',
      });
      const night = range.find(({ product }) => product.id === 'night-mail')!.result;
      const certificate = night.ok && night.assessment.limits.find(({ force }) => force === 'certificate')!;
      expect(certificate && certificate.nominalPct).to.be.within(4.35, 4.45); // 5.5 % of fats reads 4.4 % cured
    });

    it('saves from the newest revision and writes nothing from an older one', async () => {
      const { version } = (await findProduct(test.db, 'first-light'))!;
      const changed = { ...version.formula, name: 'changed' };
      const saved = await saveFormula(test.db, 'first-light', version.revision, changed, 'now');
      expect(saved.outcome).to.equal('saved');
      const stale = await saveFormula(
        test.db,
        'first-light',
        version.revision,
        { ...changed, name: 'late' },
        'later',
      );
      expect(stale).to.have.nested.property('version.formula.name', 'changed');
      expect(stale.outcome).to.equal('stale');
      expect((await findProduct(test.db, 'first-light'))!.version.formula.name).to.equal('changed');
      expect((await saveFormula(test.db, 'no-such', 1, changed, 'now')).outcome).to.equal('missing');
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
      const { limits } = (await storedFor(test.db)).material('coal-and-violets')!;
      expect(limits!.map(({ maxPct, from, to }) => [maxPct, from, to])).to.deep.equal([
        [3.9, DAY, null],
        [4.5, daysBefore(DAY, 214), daysBefore(DAY, 1)],
      ]);
      await test.db('documents').where('id', 'cert-new').delete();
    });

    it('keeps a maker’s own craft figure in place of the usual one until it is taken back', async () => {
      const figure = async () =>
        (await storedFor(test.db)).limits.find(({ id }) => id === 'craft-clay')!.maxPct;
      const usual = rulebook().craft.find(({ id }) => id === 'craft-clay')!.maxPct;
      expect(await figure()).to.equal(usual);
      await putCraftFigure(test.db, 'craft-clay', 2.5);
      expect(await figure()).to.equal(2.5);
      await putCraftFigure(test.db, 'craft-clay', null);
      expect(await figure()).to.equal(usual);
      expect(await findCraftFigures(test.db)).to.deep.equal({});
    });
  });

  describe('versions and new bars', () => {
    it('keeps a version under a name, frozen, and carries on from it', async () => {
      const { version } = (await findProduct(test.db, 'waiting-room'))!;
      const kept = await keepVersion(test.db, 'waiting-room', version.revision, 'spring', '2026-03-01');
      const working = (await findProduct(test.db, 'waiting-room'))!.version;
      expect(kept).to.deep.equal({ outcome: 'saved', version: working });
      expect(working).to.include({ number: version.number + 1, name: null });
      await saveFormula(
        test.db,
        'waiting-room',
        working.revision,
        { ...working.formula, name: 'summer' },
        'now',
      );
      const [spring] = await keptVersions(test.db, 'waiting-room');
      expect(spring!.formula).to.deep.equal(version.formula);
      expect((await keepVersion(test.db, 'waiting-room', version.revision, 'late', 'now')).outcome).to.equal(
        'stale',
      );
      expect((await keepVersion(test.db, 'nowhere', 1, 'late', 'now')).outcome).to.equal('missing');
    });

    it('starts bars of the same name apart, each from a formula that stands', async () => {
      const [first, second] = [
        await createProduct(test.db, 'Café No. 5'),
        await createProduct(test.db, 'Café No. 5'),
      ];
      expect([first.id, second.id]).to.deep.equal(['cafe-no-5', 'cafe-no-5-2']);
      expect((await createProduct(test.db, '夜行')).id).to.equal('bar');
      const range = await rangeOverview(test.db);
      const fresh = range.find(({ product }) => product.id === 'cafe-no-5')!;
      expect(fresh.result.ok && fresh.result.assessment.verdict).to.equal('clear');
    });

    it('finds materials by name or ingredient name, the maker’s own first', async () => {
      const names = async (query: string) =>
        (await searchMaterials(test.db, query)).map(({ material }) => material.name);
      expect((await names('petit'))[0]).to.equal('Petitgrain oil');
      expect(await names('simmondsia')).to.deep.equal(['Jojoba oil']);
      const clays = await searchMaterials(test.db, 'kaolin');
      expect(clays.findIndex(({ isOwn }) => !isOwn)).to.be.above(clays.findIndex(({ isOwn }) => isOwn));
      expect(await names('zzz')).to.deep.equal([]);
      expect(await searchMaterials(test.db, '')).to.have.length(12);
    });

    it('gives the worktable what it needs to reckon by itself, in its own markets only', async () => {
      const { materials, alternatives, rules, product } = await worktableData(test.db, 'lamp-room');
      expect(product.markets).to.deep.equal(['EU', 'UK']);
      expect(materials.map(({ id }) => id)).to.include.members(['clove-bud-oil', 'olive', 'water']);
      expect(alternatives.every(({ kind }) => materials.some((material) => material.kind === kind))).to.equal(
        true,
      );
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
