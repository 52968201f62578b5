import { expect } from 'chai';
import fc from 'fast-check';
import { readAmount, writeAmount } from '../../src/core/quantities/amount';
import { UNITS } from '../../src/core/quantities/units';
import { near } from '../support/request';

const read = (text: string, current: (typeof UNITS)[number] = 'g') => {
  const reading = readAmount(text, current);
  return reading.ok ? [reading.amount.value, reading.amount.unit] : reading.code;
};

describe('amounts as makers write them', () => {
  it('reads numbers, fractions, decimal commas and units in their usual spellings', () => {
    expect(read('28g')).to.deep.equal([28, 'g']);
    expect(read(' 1 oz ')).to.deep.equal([1, 'oz']);
    expect(read('5%')).to.deep.equal([5, '%fats']);
    expect(read('5 %', '%cured')).to.deep.equal([5, '%cured']);
    expect(read('3 % of fats')).to.deep.equal([3, '%fats']);
    expect(read('2 tsp')).to.deep.equal([2, 'tsp']);
    expect(read('1.5 tbsp/lb')).to.deep.equal([1.5, 'tbspPerLbFats']);
    expect(read('1 1/2 tbsp AU')).to.deep.equal([1.5, 'tbspAU']);
    expect(read('3/4', 'oz')).to.deep.equal([0.75, 'oz']);
    expect(read('0,5 kg')).to.deep.equal([0.5, 'kg']);
    expect(read('20 g/kg')).to.deep.equal([20, 'gPerKgFats']);
    expect(read('2 L')).to.deep.equal([2, 'L']);
    expect(read('2 lb')).to.deep.equal([2, 'lb']);
  });

  it('refuses what it cannot read, and guesses nothing', () => {
    expect(read('')).to.equal('not-a-number');
    expect(read('a handful')).to.equal('not-a-number');
    expect(read('1 2')).to.equal('not-a-number');
    expect(read('1/0 g')).to.equal('not-a-number');
    expect(read('-1 g')).to.equal('negative');
    expect(read('3 furlongs')).to.equal('unknown-unit');
    expect(read('3 constructor')).to.equal('unknown-unit');
    expect(read('101 % pour')).to.equal('absurd');
    expect(read('5000 kg')).to.equal('absurd');
  });

  it('writes every unit so that it reads back the same', () => {
    fc.assert(
      fc.property(fc.constantFrom(...UNITS), fc.integer({ min: 0, max: 999_999 }), (unit, tenThousandths) => {
        const amount = { value: tenThousandths / 10_000, unit };
        const reading = readAmount(writeAmount(amount), 'g');
        expect(reading.ok && reading.amount.unit).to.equal(unit);
        if (reading.ok) near(reading.amount.value, amount.value, 1e-9);
      }),
    );
  });
});
