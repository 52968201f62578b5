/** Shares of fats and liquid that do not add up are told, and put right by what a maker asks for. */
import { expect } from 'chai';
import fc from 'fast-check';
import { fatsToHundred, liquidTakesRest, sumsOf } from '../../src/core/formula/sums';
import type { Formula, Line } from '../../src/core/formula/types';
import { purposeFormula } from '../../src/core/formula/purposes';

const FATS_G = 1000;
const LIQUID_G = 330;
/** As the reckoning takes these units. */
const massOf = (formula: Formula) => (id: string) => {
  const { value, unit } = formula.lines.find((line) => line.id === id)!.amount;
  return unit === 'g' ? value : (value * (unit === '%fats' ? FATS_G : LIQUID_G)) / 100;
};
const sums = (formula: Formula) =>
  sumsOf(formula, massOf(formula)).map(({ of, pct, isOff }) => [of, Number(pct.toFixed(4)), isOff]);
const changed = (id: string, part: Partial<Line>): Formula => {
  const formula = purposeFormula('plain', 'Sums');
  return { ...formula, lines: formula.lines.map((line) => (line.id === id ? { ...line, ...part } : line)) };
};

describe('the sums of a formula', () => {
  it('say what fats and liquids come to, whatever they are stated in', () => {
    expect(sums(purposeFormula('plain', 'Sums'))).to.deep.equal([
      ['fats', 100, false],
      ['liquid', 100, false],
    ]);
    expect(sums(changed('l1', { amount: { value: 70, unit: '%fats' } }))[0]).to.deep.equal([
      'fats',
      105,
      true,
    ]);
    expect(sums(changed('l3', { amount: { value: 120, unit: 'g' } }))[0]).to.deep.equal(['fats', 105, true]);
    const milk: Line = {
      ...purposeFormula('plain', '').lines[3]!,
      id: 'm',
      amount: { value: 173, unit: 'g' },
    };
    const wet = {
      ...purposeFormula('plain', 'Sums'),
      lines: [...purposeFormula('plain', 'Sums').lines, milk],
    };
    expect(sums(wet)[1]).to.deep.equal(['liquid', 152.4242, true]);
    expect(sums(liquidTakesRest(wet, 'l4', massOf(wet))!)[1]![2]).to.equal(false);
    const inGrams = purposeFormula('plain', 'Sums').lines.map((line) => ({
      ...line,
      amount: { value: 100, unit: 'g' as const },
    }));
    expect(sums({ ...purposeFormula('plain', 'Sums'), lines: inGrams })).to.deep.equal([]);
  });

  it('are a hundred once fats were brought there, whatever they were, and lines in grams stay', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.5, max: 90, noNaN: true }), { minLength: 1, maxLength: 8 }),
        fc.option(fc.double({ min: 1, max: 900, noNaN: true }), { nil: null }),
        (shares, grams) => {
          const base = purposeFormula('plain', 'Sums');
          const line = (id: string, value: number, unit: 'g' | '%fats'): Line => ({
            ...base.lines[0]!,
            id,
            amount: { value, unit },
          });
          const lines = shares.map((value, at) => line(`f${at}`, value, '%fats'));
          if (grams !== null) lines.push(line('g', grams, 'g'));
          const formula = { ...base, lines };
          const mended = fatsToHundred(formula, massOf(formula))!;
          expect(sums(mended)[0]![2]).to.equal(false);
          expect(mended.lines.find(({ id }) => id === 'g')?.amount.value ?? null).to.equal(grams);
        },
      ),
    );
  });
});
