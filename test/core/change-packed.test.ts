/** Effects in little room, and effects of limits without lists that cannot differ. */
import { expect } from 'chai';
import fc from 'fast-check';
import { differs, sidesOfLimits, standsOf } from '../../src/core/change/effects';
import { nothingShared, packEffects, unpackEffects } from '../../src/core/change/packed';
import { relistedBetween } from '../../src/core/change/touched';
import type { Effect, Stand, Subject } from '../../src/core/change/types';
import { VERDICTS } from '../../src/core/formula/answer';
import type { Stored } from '../../src/core/formula/types';
import { shippedStore } from '../../src/server/store/snapshot';
import { generateProducts } from '../support/generate';
import { limitOn } from '../support/request';

const DAY = '2026-11-24';
const list = fc.constantFrom('', 'Aqua, Sodium Olivate', 'Sodium Cocoate, Aqua, Parfum');
const stand: fc.Arbitrary<Stand> = fc.record({
  verdict: fc.constantFrom(...VERDICTS),
  headroomPct: fc.option(fc.double({ noNaN: true, noDefaultInfinity: true })),
  boundBy: fc.option(fc.constantFrom('eu-one', 'uk-two')),
  declares: fc.subarray(['linalool', 'limonene', 'geraniol']),
  listAdded: list,
  listFormed: list,
});
const effect: fc.Arbitrary<Effect> = fc.record({
  what: fc.constantFrom('bar', 'version', 'batch', 'issued'),
  id: fc.string(),
  product: fc.string(),
  name: fc.string(),
  market: fc.constantFrom('EU', 'US'),
  before: fc.option(stand),
  after: fc.option(stand),
  worse: fc.boolean(),
  hands: fc.record({ curing: fc.nat(), inStock: fc.nat(), sold: fc.nat(), buyers: fc.nat() }),
});

describe('effects in little room', () => {
  it('come out as they went in, also through JSON', () => {
    fc.assert(
      fc.property(fc.array(effect, { maxLength: 12 }), (effects) => {
        const packed = JSON.stringify(packEffects(effects));
        const plain = JSON.parse(JSON.stringify(effects)) as Effect[];
        expect(unpackEffects(JSON.parse(packed) as ReturnType<typeof packEffects>)).to.deep.equal(plain);
      }),
    );
  });

  it('hold every text once, and several packs that share it once together', () => {
    const [one] = fc.sample(effect, { numRuns: 1, seed: 4 });
    const after = { ...fc.sample(stand, { numRuns: 1, seed: 2 })[0]!, listAdded: 'Aqua, Only Once' };
    const same = { ...one!, before: null, after };
    const packed = packEffects(Array.from({ length: 500 }, (_, at) => ({ ...same, id: `b${at}` })));
    expect(new Set(packed.texts).size).to.equal(packed.texts.length);
    expect(JSON.stringify(packed).split('Only Once')).to.have.length(2);
    const shared = nothingShared();
    const [a, b] = [unpackEffects(packed, shared), unpackEffects(structuredClone(packed), shared)];
    expect(a[0]!.after!.declares).to.equal(b[9]!.after!.declares);
    expect(shared.texts.size).to.equal(packed.texts.length);
  });
});

describe('sides of limits alone', () => {
  const store = shippedStore(DAY);
  const products = generateProducts(60, 11);
  const subjectOf = (id: string, more: Partial<Subject> = {}): Subject => ({
    ...{ what: 'bar', id, product: id, name: id, markets: ['EU', 'US'], firstPlacedOn: {} },
    hands: { curing: 0, inStock: 0, sold: 0, buyers: 0 },
    ...more,
  });

  it('are what two assessments give, whichever limits come, go or change', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...products),
        fc.double({ min: 0.1, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.boolean(),
        ({ id, formula }, factor, own, isDropped) => {
          const kept = store.limits.filter((_, at) => !isDropped || at % 3 > 0);
          const carried = formula.lines.at(-1)!.material;
          const limits = [
            ...kept.map((limit) => ({ ...limit, maxPct: limit.maxPct * factor })),
            limitOn({ type: 'material', id: carried }, own, { markets: null, force: 'standard' }),
          ];
          const other: Stored = { ...store, material: (one) => store.material(one), limits };
          const sides = [
            { stored: store, onDate: DAY },
            { stored: other, onDate: DAY },
          ] as const;
          const relists = relistedBetween(...sides);
          expect(formula.lines.some(({ material }) => relists(material))).to.equal(false);
          const subject = subjectOf(id);
          const [was, is] = sides.map(({ stored }) => standsOf(subject, formula, stored, DAY));
          const wanted = subject.markets.flatMap((market, at) =>
            differs(was![at]!, is![at]!) ? [{ market, before: was![at]!, after: is![at]! }] : [],
          );
          expect(sidesOfLimits(subject, formula, [store, other], DAY)).to.deep.equal(wanted);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('are none where nothing differs, and nothing is said of a formula that does not reckon', () => {
    const [{ formula }] = products as [(typeof products)[number]];
    const sides = [store, store] as const;
    expect(sidesOfLimits(subjectOf('x'), formula, sides, DAY)).to.deep.equal([]);
    expect(sidesOfLimits(subjectOf('x'), { ...formula, lines: [] }, sides, DAY)).to.equal(null);
  });

  it('are not taken where a material, a list or the day differs', () => {
    const side = (more: Partial<Stored>, onDate = DAY) => ({
      stored: { ...store, material: (id: string) => store.material(id), ...more },
      onDate,
    });
    const olive = { ...store.material('olive')!, waterPct: 1 };
    const relists = (b: ReturnType<typeof side>) => relistedBetween(side({}), b)('olive');
    expect(relists(side({}))).to.equal(false);
    expect(relists(side({}, '2028-01-01'))).to.equal(true);
    expect(relists(side({ declarables: store.declarables.slice(1) }))).to.equal(true);
    expect(relists(side({ material: () => olive }))).to.equal(true);
    expect(relists(side({ material: () => ({ ...store.material('olive')!, limits: [] }) }))).to.equal(false);
  });
});
