/** What sheets say of a whole batch: purity, water left, margin, process, bars and portions, in makers' own ways. */
import { expect } from 'chai';
import type { Formula, Kind } from '../../src/core/formula/types';
import { guessLayout } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';
import { formulaOf } from '../../src/core/sheets/recipe';
import { readText } from '../../src/core/sheets/text';

const KNOWN: Record<string, readonly [id: string, kind: Kind]> = {
  'Olive oil': ['olive', 'fat'],
  'Coconut oil': ['coconut', 'fat'],
  Water: ['water', 'liquid'],
  Kaolin: ['kaolin', 'clay'],
};

const taking = {
  find: (name: string) => {
    const known = KNOWN[name];
    return known ? { id: known[0], kind: known[1] } : null;
  },
  ...{ percentOf: 'fats' as const, batchG: 1000, superfatPct: 5 },
};

const FATS = [
  ['Olive oil', '700 g'],
  ['Coconut oil', '300 g'],
  ['Water', '300 g'],
];

function taken(
  more: readonly string[][],
  head = ['Ingredient', 'Amount'],
): { formula: Formula; notes: string[] } {
  const rows = [head, ...more, ...FATS];
  const { bars, faults } = readSheet(rows, guessLayout(rows), 'Bar');
  expect(faults).to.deep.equal([]);
  const result = formulaOf(bars[0]!, taking);
  if (!result.ok) throw new Error(result.faults.map(({ message }) => message).join(' '));
  return result;
}

describe('what a sheet says of the whole batch', () => {
  it('is no lye and no ingredient: purity, water left, margin, process, bars', () => {
    const { formula } = taken([
      ['Lye purity', '97%'],
      ['Lye', '138 g'],
      ['Water left', '6 %'],
      ['Margin', '12 %'],
      ['Process', 'Hot process'],
      ['Number of bars', '12'],
    ]);
    expect(formula.alkali).to.deep.equal({ massG: 138, purityPct: 97 });
    expect(formula.cure).to.deep.equal({ residualWaterPct: 6 });
    expect([formula.marginPct, formula.process, formula.bars]).to.deep.equal([12, 'hot', 12]);
    expect(formula.lines.map(({ material }) => material)).to.deep.equal(['olive', 'coconut', 'water']);
  });

  it('is a percent whatever the column is in, and a fraction as sheets keep percents', () => {
    for (const [said, pct] of [
      ['0.98', 98],
      ['98', 98],
      ['98,5 %', 98.5],
    ] as const) {
      const { formula } = taken([
        ['Purity of the lye', said],
        ['Superfat', '5 %'],
      ]);
      expect(formula.alkali, said).to.deep.equal({ superfatPct: 5, purityPct: pct });
    }
  });

  it('stays what is usual where no row says it', () => {
    const { formula } = taken([['Superfat', '5 %']]);
    expect(formula).to.deep.include({ process: 'cold', cure: { residualWaterPct: 8 }, marginPct: 10 });
    expect(formula.alkali.purityPct).to.equal(99);
    expect(formula).not.to.have.any.keys('bars', 'usedOn', 'scentNaming', 'portions');
  });

  it('is told where it is not understood, and is never taken for something else', () => {
    const faultsOf = (row: string[]) => {
      const rows = [['Ingredient', 'Amount'], row, ...FATS];
      return readSheet(rows, guessLayout(rows), 'Bar').faults.map(({ message }) => message);
    };
    expect(faultsOf(['Process', 'with a stick blender'])).to.deep.equal([
      'Process: “with a stick blender” is not understood. Say hot or cold.',
    ]);
    expect(faultsOf(['Bars', '1.4 kg'])).to.deep.equal(['“1.4 kg” is no number of bars.']);
    expect(faultsOf(['Lye purity', '138 g'])).to.deep.equal(['Lye purity: “138 g” is no percent.']);
  });

  it('parts the batter where the share of each portion is said, and tells where it is not', () => {
    const head = ['Ingredient', 'Amount', 'Portion'];
    const shares = [
      ['Share of portion white', '40 %'],
      ['Share of portion plain', '60 %'],
    ];
    const whole = taken([...shares, ['Kaolin', '10 g', 'white']], head).formula;
    expect(whole.portions).to.deep.equal([
      { id: 'white', share: 0.4 },
      { id: 'plain', share: 0.6 },
    ]);
    expect(whole.lines.map(({ portion }) => portion ?? '')).to.deep.equal(['white', '', '', '']);
    const open = taken([['Kaolin', '10 g', 'white']], head);
    expect(open.formula.portions).to.equal(undefined);
    expect(open.formula.lines.some(({ portion }) => portion != null)).to.equal(false);
    expect(open.notes.join(' ')).to.include('It names portions (white) without saying the share of each');
  });

  it('is understood where a recipe is typed as text', () => {
    const { bar } = readText('700 olive\n300 coconut\nlye 138 g\nlye purity 97 %\nmargin 5 %', 'g');
    const find = (name: string) =>
      name === 'olive' || name === 'coconut' ? { id: name, kind: 'fat' as const } : null;
    const result = formulaOf(bar, { ...taking, find });
    if (!result.ok) throw new Error(result.faults.map(({ message }) => message).join(' '));
    expect(result.formula.alkali).to.deep.equal({ massG: 138, purityPct: 97 });
    expect(result.formula.marginPct).to.equal(5);
  });
});
