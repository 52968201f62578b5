/** One material in the place of another: gram for gram, or at the same share of its own largest load. */
import { expect } from 'chai';
import fc from 'fast-check';
import { assess } from '../../src/core/assess';
import { requestOf, standsOf } from '../../src/core/change/effects';
import { swapped } from '../../src/core/change/swap';
import type { Formula, Market, Stored } from '../../src/core/formula/types';
import { limitOn, MATERIALS } from '../support/request';

const SOLD = { markets: ['EU'] as Market[], firstPlacedOn: {} };
const DAY = '2026-11-24';
const stored = (limits: ReturnType<typeof limitOn>[]): Stored => ({
  material: (id) => MATERIALS.find((one) => one.id === id),
  limits,
  declarables: [],
});
const formulaWith = (clovePct: number): Formula => ({
  fatsMassG: 1000,
  alkali: { superfatPct: 5, purityPct: 100 },
  lines: [
    { id: 'o', material: 'olive', stage: 'fats', amount: { value: 100, unit: '%fats' } },
    { id: 'w', material: 'water', stage: 'liquid', amount: { value: 330, unit: 'g' } },
    {
      id: 'c',
      material: 'clove',
      stage: 'trace',
      amount: { value: clovePct, unit: '%fats' },
      measuredBy: 'scale',
    },
  ],
});
const swap = { from: 'clove', to: 'cinnamon' };

describe('a swap', () => {
  it('gram for gram leaves every amount as it is', () => {
    const formula = formulaWith(2);
    const next = swapped(SOLD, formula, { ...swap, by: 'mass' }, stored([]), DAY);
    expect(next.lines.map(({ material }) => material)).to.deep.equal(['olive', 'water', 'cinnamon']);
    expect(next.lines.map(({ amount }) => amount)).to.deep.equal(formula.lines.map(({ amount }) => amount));
    expect(formula.lines[2]!.material).to.equal('clove');
  });

  it('gram for gram means grams where spoons were stated: spoons of two materials weigh differently', () => {
    const spoons: Formula = {
      ...formulaWith(1),
      lines: [
        ...formulaWith(1).lines,
        {
          id: 'k',
          material: 'clay',
          stage: 'trace',
          amount: { value: 3, unit: 'tbsp' },
          measuredBy: 'spoon',
        },
      ],
    };
    const massOf = (formula: Formula) => {
      const result = assess(requestOf(SOLD, formula, DAY), stored([]));
      if (!result.ok) expect.fail(JSON.stringify(result.errors));
      return result.assessment.lines[3]!.massG;
    };
    const next = swapped(SOLD, spoons, { from: 'clay', to: 'salt', by: 'mass' }, stored([]), DAY);
    expect(massOf(next)).to.be.closeTo(massOf(spoons), 1e-3);
    expect(next.lines[3]!.amount.unit).to.equal('g');
    // What has no density on file can take its place as well.
    const into = swapped(SOLD, spoons, { from: 'clay', to: 'perfume', by: 'headroom' }, stored([]), DAY);
    expect(massOf(into)).to.be.closeTo(massOf(spoons), 1e-3);
  });

  it('by headroom leaves the same share of the largest load, whatever the two limits are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        (pct, clove, cinnamon) => {
          const rules = stored([
            limitOn({ type: 'material', id: 'clove' }, clove),
            limitOn({ type: 'material', id: 'cinnamon' }, cinnamon),
          ]);
          const formula = formulaWith(pct);
          const next = swapped(SOLD, formula, { ...swap, by: 'headroom' }, rules, DAY);
          const share = (of: Formula) => {
            const result = assess(requestOf(SOLD, of, DAY), rules);
            if (!result.ok) expect.fail(JSON.stringify(result.errors));
            const line = result.assessment.lines[2]!;
            return line.massG / line.maxG!;
          };
          expect(share(next)).to.be.closeTo(share(formula), 2e-3 * Math.max(1, share(formula)));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('falls back on gram for gram where nothing binds one of the two', () => {
    const rules = stored([limitOn({ type: 'material', id: 'clove' }, 1)]);
    const next = swapped(SOLD, formulaWith(2), { ...swap, by: 'headroom' }, rules, DAY);
    expect(next.lines[2]!.amount).to.deep.equal({ value: 2, unit: '%fats' });
  });

  it('of a fat changes lye and list, since both follow from the fats', () => {
    const formula = formulaWith(1);
    const next = swapped(SOLD, formula, { from: 'olive', to: 'coconut', by: 'mass' }, stored([]), DAY);
    const alkali = (of: Formula) => {
      const result = assess(requestOf(SOLD, of, DAY), stored([]));
      return result.ok ? result.assessment.masses.alkaliPureG : NaN;
    };
    expect(alkali(formula)).to.be.closeTo(0.95 * 135, 1e-6);
    expect(alkali(next)).to.be.closeTo(0.95 * 180, 1e-6);
    const [was, is] = [formula, next].map((of) => standsOf(SOLD, of, stored([]), DAY)[0]!.listAdded);
    expect(was).to.contain('INCI olive');
    expect(is).not.to.contain('INCI olive');
  });
});
