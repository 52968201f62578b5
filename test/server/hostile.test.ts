/** Whatever a client sends to whichever address: an answer that says what is wrong, never a fault of our own. */
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import fc from 'fast-check';
import { findWrap } from '../../src/server/repositories/wraps';
import { call, sending } from './call';
import { useDemo } from './database';

type Routes = Promise<{ [method: string]: APIRoute }>;
interface Door {
  name: string;
  route: () => Routes;
  method: 'POST' | 'PUT';
  params: Record<string, string>;
  /** A body that would be taken, to be bent out of shape. */
  good: () => Promise<unknown> | unknown;
}

const PART = { material: 'olive', parts: 1 };
const LOT = { supplier: '', code: 'A', receivedOn: '2026-01-01', quantityG: 10, leftG: 5, price: 1 };
const PAPER = {
  type: 'certificate',
  number: 'X-1',
  edition: '51st',
  issuedOn: '2026-01-01',
  issuer: 'X',
  maxPct: 1,
  otherCategories: [{ category: '4', maxPct: 2 }],
  constituents: [{ id: 'linalool', lowPct: 1, typicalPct: 2, highPct: 3 }],
};
const MATERIAL = {
  name: 'Dust',
  kind: 'botanical',
  inci: [{ name: 'Dust', sharePct: 100, role: 'ingredient' }],
  constituents: [{ id: 'linalool', lowPct: 1, typicalPct: 2, highPct: 3 }],
  limits: [
    { id: 'own', subject: { type: 'material', id: 'dust' }, maxPct: 1, basis: 'fats', force: 'craft' },
  ],
};

describe('hostile input', () => {
  const test = useDemo();
  const wrapOf = async () => (await findWrap(test.db, 'first-light'))!.wrap;

  const DOORS: Door[] = [
    {
      name: 'own material',
      route: () => import('../../src/pages/api/v1/materials/index') as never as Routes,
      method: 'POST',
      params: {},
      good: () => ({ material: MATERIAL, supplier: 'us' }),
    },
    {
      name: 'from the library',
      route: () => import('../../src/pages/api/v1/materials/index') as never as Routes,
      method: 'PUT',
      params: {},
      good: () => ({ library: 'olive' }),
    },
    {
      name: 'a changed material',
      route: () => import('../../src/pages/api/v1/materials/[id]/index') as never as Routes,
      method: 'PUT',
      params: { id: 'kaolin' },
      good: () => ({ material: { ...MATERIAL, kind: 'clay' } }),
    },
    {
      name: 'papers',
      route: () => import('../../src/pages/api/v1/materials/[id]/papers') as never as Routes,
      method: 'POST',
      params: { id: 'kaolin' },
      good: () => ({ papers: [PAPER], inbox: null }),
    },
    {
      name: 'a lot',
      route: () => import('../../src/pages/api/v1/materials/[id]/lots/index') as never as Routes,
      method: 'POST',
      params: { id: 'kaolin' },
      good: () => LOT,
    },
    {
      name: 'a mix',
      route: () => import('../../src/pages/api/v1/mixes/index') as never as Routes,
      method: 'POST',
      params: {},
      good: () => ({ name: 'Mix', parts: [PART] }),
    },
    {
      name: 'a changed mix',
      route: () => import('../../src/pages/api/v1/mixes/[id]') as never as Routes,
      method: 'PUT',
      params: { id: 'brine' },
      good: () => ({ name: 'Brine', parts: [PART], revision: 1 }),
    },
    {
      name: 'moulds',
      route: () => import('../../src/pages/api/v1/moulds') as never as Routes,
      method: 'PUT',
      params: {},
      good: () => ({ moulds: [{ id: 'm', name: 'M', volumeMl: 10, cavities: 1 }] }),
    },
    {
      name: 'own phrases',
      route: () => import('../../src/pages/api/v1/phrases') as never as Routes,
      method: 'PUT',
      params: {},
      good: () => ({ phrases: [{ say: 'glow .. (very)|so bright*', class: 'cosmetic', language: 'en' }] }),
    },
    {
      name: 'details',
      route: () => import('../../src/pages/api/v1/products/[id]/details') as never as Routes,
      method: 'PUT',
      params: { id: 'first-light' },
      good: () => ({
        name: 'First Light',
        identity: 'Soap',
        note: '',
        markets: ['EU'],
        netMassG: 80,
        batchCode: '',
        firstPlacedOn: { EU: '2026-01-01' },
      }),
    },
    {
      name: 'a wrap',
      route: () => import('../../src/pages/api/v1/products/[id]/wrap') as never as Routes,
      method: 'PUT',
      params: { id: 'first-light' },
      good: async () => ({ revision: 1, wrap: await wrapOf() }),
    },
    {
      name: 'a preview',
      route: () => import('../../src/pages/api/v1/products/[id]/label/preview') as never as Routes,
      method: 'POST',
      params: { id: 'first-light' },
      good: async () => ({ market: 'US', wrap: await wrapOf() }),
    },
    {
      name: 'an issue',
      route: () => import('../../src/pages/api/v1/products/[id]/issued') as never as Routes,
      method: 'POST',
      params: { id: 'first-light' },
      good: () => ({ market: 'EU' }),
    },
  ];

  const ODD: fc.Arbitrary<unknown> = fc.oneof(
    fc.constantFrom<unknown>(
      null,
      '',
      'soap',
      -1,
      0,
      1e308,
      1e-308,
      0.5,
      true,
      [],
      {},
      [null],
      '\u0000',
      '🧼',
      '../..',
      '<b>',
    ),
    fc.string({ maxLength: 12 }),
    fc.double({ noNaN: true }),
    fc.array(fc.jsonValue({ maxDepth: 2 }), { maxLength: 3 }),
  );

  /** Every place in a JSON value, as a path of keys. */
  function places(value: unknown, path: string[] = []): string[][] {
    if (typeof value !== 'object' || value === null) return [path];
    return [path, ...Object.entries(value).flatMap(([key, child]) => places(child, [...path, key]))];
  }

  function bent(value: unknown, path: readonly string[], odd: unknown): unknown {
    const [key, ...rest] = path;
    if (key === undefined) return odd;
    const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<
      string,
      unknown
    >;
    copy[key] = bent(copy[key], rest, odd);
    return copy;
  }

  for (const { name, route, method, params, good } of DOORS) {
    it(`bent out of shape is told with its path, or taken: ${name}`, async () => {
      const body = await good();
      const all = places(body);
      await fc.assert(
        fc.asyncProperty(fc.nat(all.length - 1), ODD, async (at, odd) => {
          const sent = JSON.stringify(bent(body, all[at]!, odd));
          const { status, body: told } = await call(route(), method, '/', sending(sent), params);
          expect(status, sent).to.be.oneOf([200, 201, 404, 409, 422]);
          if (status !== 422) return;
          const { errors } = told as unknown as { errors: { path: string; code: string; message: string }[] };
          expect(errors.length).to.be.above(0);
          for (const error of errors) {
            expect(error.message.length, sent).to.be.above(8);
            expect(error.code).to.be.a('string').and.not.equal('');
          }
        }),
        { numRuns: 60 },
      );
    });

    it(`that is no JSON, no object or none at all is refused: ${name}`, async () => {
      const status = async (text: string, type?: string) =>
        (await call(route(), method, '/', sending(text, type), params)).status;
      expect(await status('{"a":')).to.equal(400);
      expect(await status('[]')).to.equal(422);
      expect(await status('"soap"')).to.equal(422);
      expect(await status('{}', 'text/plain')).to.equal(415);
      expect(await status(`{"x":"${'y'.repeat(1024 * 1024)}"}`)).to.equal(413);
    });
  }

  it('a name of prototype or path leads nowhere', async () => {
    const wraps = (await import('../../src/pages/api/v1/products/[id]/wrap')) as never as Awaited<Routes>;
    const materials =
      (await import('../../src/pages/api/v1/materials/[id]/index')) as never as Awaited<Routes>;
    for (const id of ['__proto__', 'constructor', '../../etc/passwd', '%00', '', 'x'.repeat(5000)]) {
      expect((await call(Promise.resolve(wraps), 'GET', '/', {}, { id })).status).to.equal(404);
      expect((await call(Promise.resolve(materials), 'GET', '/', {}, { id })).status).to.equal(404);
      expect((await call(Promise.resolve(materials), 'DELETE', '/', {}, { id })).status).to.equal(404);
    }
  });
});
