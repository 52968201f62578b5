/** Constituents that a rule holds to one figure together. */
import { expect } from 'chai';
import fc from 'fast-check';
import { touchedBetween } from '../../src/core/change/touched';
import type { Constituent, Limit, Material } from '../../src/core/formula/types';
import { assessed, limitOn, NOTHING_STORED, request, type ShortLine } from '../support/request';
import { shippedStore } from '../../src/server/store/snapshot';

const holding = (id: string, constituents: Constituent[], limits: Limit[] = []): Material => ({
  id,
  name: id,
  kind: 'clay',
  constituents,
  limits,
});
const share = (id: string, typicalPct: number): Constituent => ({
  ...{ id, typicalPct },
  lowPct: typicalPct / 2,
  highPct: typicalPct * 1.5,
});
const BAR: ShortLine[] = [
  ['f', 'olive', 'fats', 1000, 'g'],
  ['w', 'water', 'liquid', 300, 'g'],
  ['x', 'ex', 'trace', 10, 'g'],
  ['y', 'why', 'trace', 20, 'g'],
];
const TOGETHER = { type: 'constituent', id: 'one+two' } as const;

function judged(x: Material, y: Material, limits: Limit[]) {
  const asked = request(BAR, {}, { rules: { replace: true, limits } });
  return assessed({ ...asked, materials: [...asked.materials!, x, y] });
}

describe('constituents under one figure', () => {
  it('count together, over lines and within one, at every end of their ranges', () => {
    const figure = fc.double({ min: 0.01, max: 40, noNaN: true });
    fc.assert(
      fc.property(figure, figure, figure, (a, b, c) => {
        const x = holding('ex', [share('one', a), share('two', b)]);
        const [limit] = judged(x, holding('why', [share('two', c)]), [limitOn(TOGETHER, 5)]).limits;
        // The same bar with the two called by one name.
        const sum = { ...share('both', a + b) };
        const alone = judged(holding('ex', [sum]), holding('why', [share('both', c)]), [
          limitOn({ type: 'constituent', id: 'both' }, 5),
        ]).limits[0]!;
        for (const end of ['lowPct', 'nominalPct', 'highPct'] as const)
          expect(limit![end]).to.be.closeTo(alone[end], 1e-9 * alone[end]);
        expect(limit!.verdict).to.equal(alone.verdict);
      }),
    );
  });

  it('say nothing of a bar that holds neither, and speak of one that holds one', () => {
    const other = holding('why', [share('three', 10)]);
    expect(judged(holding('ex', [share('four', 5)]), other, [limitOn(TOGETHER, 5)]).limits).to.deep.equal([]);
    expect(judged(holding('ex', [share('two', 5)]), other, [limitOn(TOGETHER, 5)]).limits).to.have.length(1);
  });

  it('count over every line where the figure comes with a material, whichever stands first', () => {
    const own = [limitOn(TOGETHER, 5)];
    const nominal = (x: Material, y: Material) => judged(x, y, []).limits.map(({ nominalPct }) => nominalPct);
    const [first] = nominal(holding('ex', [share('one', 9)], own), holding('why', [share('two', 9)]));
    const [last] = nominal(holding('ex', [share('one', 9)]), holding('why', [share('two', 9)], own));
    const [all] = judged(holding('ex', [share('one', 9)]), holding('why', [share('two', 9)]), own).limits;
    expect([first, last]).to.deep.equal([all!.nominalPct, all!.nominalPct]);
  });

  it('touch a bar with either when the figure changes', () => {
    const material = (id: string) => holding(id, [share(id === 'ex' ? 'two' : 'three', 5)]);
    const side = (limits: Limit[]) => ({
      stored: { ...NOTHING_STORED, material, limits },
      onDate: '2026-11-24',
    });
    const touches = touchedBetween(side([]), side([limitOn(TOGETHER, 5)]));
    expect([touches('ex'), touches('why')]).to.deep.equal([true, false]);
  });

  it('are held so in the newest edition: two alkynoates and two tagetes oils, in the EU and the UK', () => {
    const lines: ShortLine[] = [...BAR.slice(0, 2), ['x', 'ex', 'trace', 2, 'g']];
    const x = holding('ex', [
      share('methyl-2-nonynoate', 1),
      share('methyl-2-octynoate', 8),
      share('tagetes-patula-oil', 60),
    ]);
    const asked = request(lines, {}, { rules: null, markets: ['EU', 'UK', 'US'] });
    const { limits } = assessed(
      { ...asked, materials: [...asked.materials!, x] },
      shippedStore('2026-11-24'),
    );
    const said = limits
      .filter(({ subject }) => subject.id.includes('+'))
      .map(({ id, market, verdict }) => `${id} ${market} ${verdict}`);
    expect(said).to.have.members([
      'eu-methyl-2-alkynoates-together EU over',
      'uk-methyl-2-alkynoates-together UK over',
      'eu-tagetes-together EU atRisk',
      'uk-tagetes-together UK atRisk',
    ]);
  });
});
