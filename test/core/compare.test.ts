import { expect } from 'chai';
import { compareFormulas } from '../../src/core/formula/compare';
import type { Formula } from '../../src/core/formula/types';
import { generateFormula, seeded } from '../support/generate';
import { lines } from '../support/request';

const FROM: Formula = {
  alkali: { superfatPct: 5, purityPct: 99 },
  cure: { residualWaterPct: 8 },
  lines: lines([
    ['l1', 'olive', 'fats', 700, 'g'],
    ['l2', 'coconut', 'fats', 300, 'g'],
    ['l3', 'clay', 'trace', 2, 'tsp', { measuredBy: 'spoon' }],
  ]),
};

describe('comparing formulas', () => {
  it('finds nothing between a formula and itself, whatever the ids of its lines', () => {
    for (let seed = 1; seed < 20; seed++) {
      const formula = generateFormula(18, seeded(seed));
      const renamed = { ...formula, lines: formula.lines.map((line) => ({ ...line, id: `x-${line.id}` })) };
      expect(compareFormulas(formula, renamed)).to.deep.equal([]);
    }
  });

  it('tells lines added, removed and changed, and settings', () => {
    const to: Formula = {
      ...FROM,
      alkali: { superfatPct: 7, purityPct: 99 },
      portions: [
        { id: 'A', share: 0.6 },
        { id: 'B', share: 0.4 },
      ],
      lines: lines([
        ['l1', 'olive', 'fats', 650, 'g'],
        ['l3', 'clay', 'intoFats', 2, 'tsp', { measuredBy: 'scale' }],
        ['l4', 'salt', 'trace', 1, '%fats'],
      ]),
    };
    expect(compareFormulas(FROM, to)).to.deep.equal([
      { kind: 'amount', material: 'olive', from: '700 g', to: '650 g' },
      { kind: 'removed', material: 'coconut', amount: '300 g' },
      { kind: 'line', material: 'clay', what: 'stage', from: 'trace', to: 'intoFats' },
      { kind: 'line', material: 'clay', what: 'measuredBy', from: 'spoon', to: 'scale' },
      { kind: 'added', material: 'salt', amount: '1 % fats' },
      { kind: 'setting', what: 'superfat, %', from: '5', to: '7' },
      { kind: 'setting', what: 'portions', from: '', to: 'A 60 %, B 40 %' },
    ]);
  });
});
