import { expect } from 'chai';
import { assess } from '../../src/core/assess';
import { VERDICTS } from '../../src/core/formula/answer';
import type { Limit } from '../../src/core/formula/types';
import { compareVerdicts } from '../../src/core/loads/limits';
import { assessed, limitOn, near, NOTHING_STORED, request, type ShortLine } from '../support/request';

const PERFUME = { type: 'material', id: 'perfume' } as const;
const bar = (grams: number): ShortLine[] => [
  ['f', 'olive', 'fats', 1000, 'g'],
  ['w', 'water', 'liquid', 300, 'g'],
  ['p', 'perfume', 'trace', grams, 'g'],
];
/** Cured: (1128.25 + grams) / 0.9. */
const held = (grams: number, limits: Limit[], more = {}) =>
  assessed(request(bar(grams), {}, { rules: { replace: true, limits }, ...more }));

describe('verdicts', () => {
  it('stand in one order, worst first', () => {
    expect(VERDICTS.toReversed().sort(compareVerdicts)).to.deep.equal(VERDICTS);
  });

  it('runs from clear over tight and at risk to over as the load rises', () => {
    // Against 4 %: 52.46 g is nominally on it, 51.93 g is so at the high end; the margin starts at 3.6 %.
    const at = (grams: number) => held(grams, [limitOn(PERFUME, 4)]).verdict;
    expect([40, 47, 52.2, 53].map(at)).to.deep.equal(['clear', 'tight', 'atRisk', 'over']);
  });

  it('counts a load on the very limit as within it', () => {
    const grams = held(40, [limitOn(PERFUME, 4)]).lines[2]!.maxG!;
    expect(held(grams, [limitOn(PERFUME, 4)]).verdict).to.equal('tight');
    expect(held(grams * (1 + 1e-6), [limitOn(PERFUME, 4)]).verdict).to.equal('atRisk');
  });

  it('holds an unweighed load to its doubt', () => {
    const byEye = request(bar(35), {}, { rules: { replace: true, limits: [limitOn(PERFUME, 4)] } });
    byEye.formula.lines[2]!.measuredBy = 'eye';
    expect(assessed(byEye).verdict).to.equal('atRisk'); // 35 g may be 56 g
    byEye.formula.lines[2]!.uncertaintyPct = 2;
    expect(assessed(byEye).verdict).to.equal('clear');
  });

  it('calls a scent without paper unproven, craft advice or not', () => {
    const craft = limitOn({ type: 'kind', id: 'fragrance' }, 6, { force: 'craft', basis: 'fats' });
    expect(held(30, [craft])).to.deep.include({
      verdict: 'unproven',
      unproven: [{ line: 'p', market: 'EU' }],
    });
    const foreign = limitOn(PERFUME, 5, { markets: ['US'] });
    expect(held(30, [foreign], { markets: ['EU', 'US'] }).unproven).to.deep.equal([
      { line: 'p', market: 'EU' },
    ]);
    const onConstituent = limitOn({ type: 'constituent', id: 'linalool' }, 5);
    expect(held(30, [onConstituent]).verdict).to.equal('unproven');
    expect(held(0, []).unproven).to.deep.equal([]);
  });

  it('never lets craft advice make a product worse than tight, and lists it last', () => {
    const craft = limitOn({ type: 'kind', id: 'fragrance' }, 1, { id: 'advice', force: 'craft' });
    const a = held(30, [craft, limitOn(PERFUME, 5)]);
    expect(a.verdict).to.equal('tight');
    expect(a.limits.map(({ id, verdict }) => `${id} ${verdict}`)).to.deep.equal([
      'max-perfume clear',
      'advice over',
    ]);
    expect(a.lines[2]!.boundBy).to.equal('max-perfume');
  });

  it('makes what is prohibited over at any load, with no ratio to a limit of zero', () => {
    const never = limitOn(PERFUME, 0, { force: 'law' });
    const a = held(0.001, [never]);
    expect(a.limits[0]).to.include({ verdict: 'over', headroomPct: null });
    expect(a.lines[2]).to.include({ maxG: 0, boundBy: 'max-perfume' });
    expect(held(0, [never]).verdict).to.equal('clear');
  });

  it('heeds dates at both ends, and each market by itself', () => {
    const dated = limitOn(PERFUME, 1, { from: '2026-01-01', to: '2026-06-30', markets: ['UK'] });
    const on = (onDate: string) =>
      held(30, [dated, limitOn(PERFUME, 9, { id: 'loose' })], { onDate, markets: ['EU', 'UK'] });
    expect(
      ['2025-12-31', '2026-01-01', '2026-06-30', '2026-07-01'].map((day) => on(day).verdict),
    ).to.deep.equal(['clear', 'over', 'over', 'clear']);
    expect(on('2026-03-01').markets).to.deep.equal([
      { market: 'EU', verdict: 'clear' },
      { market: 'UK', verdict: 'over' },
    ]);
  });

  it('holds limits on a kind and on an ingredient name, whatever its case', () => {
    const a = held(30, [
      limitOn(PERFUME, 9),
      limitOn({ type: 'inci', id: 'inci OLIVE' }, 60, { basis: 'pour' }),
      limitOn({ type: 'kind', id: 'fat' }, 99, { basis: 'fats' }),
    ]);
    const found = Object.fromEntries(a.limits.map(({ id, nominalPct }) => [id, nominalPct]));
    near(found['max-inci OLIVE'], (100 * 1000) / 1458.25);
    near(found['max-fat'], 100);
    // a basis of fats moves with the fats' own doubt
    near(a.limits.find(({ id }) => id === 'max-fat')!.highPct, 100);
    expect(a.limits.some(({ id }) => id === 'max-absent')).to.equal(false);
  });

  it('lets another oil that alone exceeds the limit leave nothing for this one', () => {
    const eugenol = limitOn({ type: 'constituent', id: 'eugenol' }, 0.5);
    const a = assessed(
      request(
        [
          ['f', 'olive', 'fats', 1000, 'g'],
          ['c', 'clove', 'trace', 20, 'g'],
          ['n', 'cinnamon', 'trace', 2, 'g'],
        ],
        {},
        { rules: { replace: true, limits: [eugenol] } },
      ),
    );
    expect(a.lines[2]).to.include({ maxG: 0, boundBy: 'max-eugenol' });
    expect(a.lines[1]!.maxG!).to.be.above(0);
  });

  it('tells faults with path, code and remedy, and answers nothing', () => {
    const faults = (short: ShortLine[], formula = {}) => {
      const result = assess(request(short, formula), NOTHING_STORED);
      return result.ok ? [] : result.errors.map(({ path, code }) => `${path} ${code}`);
    };
    const fats: ShortLine = ['f', 'olive', 'fats', 1000, 'g'];
    expect(faults([])).to.deep.equal(['formula.lines empty']);
    expect(faults([['f', 'olive', 'fats', 0, 'g']])).to.deep.equal(['formula.lines fats-zero']);
    expect(faults([fats, ['x', 'unobtainium', 'trace', 1, 'g']])).to.deep.equal([
      'formula.lines.1.material unknown-material',
    ]);
    expect(faults([fats, ['x', 'perfume', 'trace', 1, 'tsp']])).to.deep.equal([
      'formula.lines.1.amount.unit density-missing',
    ]);
    expect(faults([['f', 'olive', 'fats', 60, '%fats']])).to.deep.equal([
      'formula.fatsMassG fats-mass-missing',
    ]);
    expect(faults([fats, ['w', 'water', 'liquid', 100, '%liquid']])).to.deep.equal([
      'formula.lines.1.amount.unit liquid-missing',
    ]);
    expect(faults([fats, ['f', 'clay', 'trace', 1, 'g']])).to.deep.equal(['formula.lines.1.id duplicate']);
    expect(faults([fats, ['k', 'clay', 'trace', 1, 'g', { portion: 'Z' }]])).to.deep.equal([
      'formula.lines.1.portion unknown-portion',
    ]);
    expect(faults([fats], { portions: [{ id: 'A', share: 0.5 }] })).to.deep.equal([
      'formula.portions shares-not-one',
    ]);
    expect(faults([fats], { alkali: {} })).to.deep.equal(['formula.alkali alkali-missing']);
    expect(faults([fats], { alkali: { superfatPct: 5, massG: 1 } })).to.deep.equal([
      'formula.alkali alkali-twice',
    ]);
    const whole: ShortLine[] = [
      fats,
      ['a', 'clay', 'trace', 60, '%pour'],
      ['b', 'salt', 'trace', 40, '%pour'],
    ];
    expect(faults(whole)).to.deep.equal(['formula.lines no-solution']);
  });

  it('asks lauric fats and superfat of a salted bar, and says which is missing', () => {
    const demand = {
      id: 'salt-lauric',
      subject: { type: 'kind' as const, id: 'salt' },
      abovePct: 20,
      basis: 'fats' as const,
      wants: { lauricFatsPct: 70, superfatPct: 15 },
      reason: 'Salt kills lather.',
    };
    const unmet = (coconut: number, superfatPct: number, salt: number) =>
      assessed(
        {
          ...request(
            [
              ['c', 'coconut', 'fats', coconut, 'g'],
              ['o', 'olive', 'fats', 1000 - coconut, 'g'],
              ['s', 'salt', 'trace', salt, 'g'],
            ],
            { alkali: { superfatPct } },
          ),
          rules: null,
        },
        { ...NOTHING_STORED, demands: [demand] },
      ).advice.map((row) => row.unmet.map(({ what }) => what));
    expect(unmet(800, 18, 500)).to.deep.equal([]);
    expect(unmet(300, 18, 500)).to.deep.equal([['lauricFats']]);
    expect(unmet(300, 5, 500)).to.deep.equal([['lauricFats', 'superfat']]);
    expect(unmet(300, 5, 100)).to.deep.equal([]);
  });

  it('lets a maker’s own craft figure take the place of the stored one, and nothing else', () => {
    const stored = {
      ...NOTHING_STORED,
      limits: [
        limitOn({ type: 'kind', id: 'clay' }, 5, { id: 'craft-clay', force: 'craft' }),
        limitOn({ type: 'kind', id: 'clay' }, 50, { id: 'law-clay', force: 'law' }),
      ],
    };
    const short: ShortLine[] = [
      ['f', 'olive', 'fats', 1000, 'g'],
      ['k', 'clay', 'trace', 30, 'g'],
    ];
    const own = [
      limitOn({ type: 'kind', id: 'clay' }, 1, { id: 'craft-clay', force: 'craft' }),
      limitOn({ type: 'kind', id: 'clay' }, 90, { id: 'law-clay', force: 'craft' }),
    ];
    const a = assessed({ ...request(short), rules: { limits: own } }, stored);
    expect(a.limits.map(({ id, maxPct }) => `${id} ${maxPct}`).sort()).to.deep.equal([
      'craft-clay 1',
      'law-clay 50',
      'law-clay 90',
    ]);
  });
});
