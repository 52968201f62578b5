/** Numbers as people write them: one reader for forms, amounts and papers. */
import { expect } from 'chai';
import fc from 'fast-check';
import { readNumber, readNumberOrNull } from '../../src/core/quantities/number';

describe('a number', () => {
  it('is read with comma or point, and with marks of thousands in groups of three', () => {
    const rows: [string, number][] = [
      ['12.5', 12.5],
      ['12,5', 12.5],
      [' .5 ', 0.5],
      [',5', 0.5],
      ['-3', -3],
      ['1 250', 1250],
      ["1'250.5", 1250.5],
      ['1.250,5', 1250.5],
      ['1,250.5', 1250.5],
      ['1,250,000', 1_250_000],
      ['1,250', 1.25],
    ];
    for (const [text, value] of rows) expect(readNumber(text), text).to.equal(value);
    expect(readNumber('1,250', '.')).to.equal(1250);
    expect(readNumber('1.250', ',')).to.equal(1250);
  });

  it('is none where several stand, groups are no groups, or words stand beside', () => {
    for (const text of [
      '',
      ' ',
      '12 5',
      '1 2 3',
      '88 4',
      '1,2,3',
      '1.2.3',
      '1.25,000',
      '5 g',
      'ten',
      '1e3',
      '--1',
    ])
      expect(Number.isNaN(readNumber(text)), text).to.equal(true);
    expect(readNumberOrNull('  ')).to.equal(null);
  });

  it('comes back however it is grouped and marked', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 99_999_999 }),
        fc.constantFrom(',', '.'),
        (hundredths, mark) => {
          const value = hundredths / 100;
          const [whole, rest] = value.toFixed(2).split('.') as [string, string];
          for (const group of ['', ' ', "'", mark === ',' ? '.' : ',']) {
            const text = whole.replace(/\B(?=(\d{3})+$)/g, group) + mark + rest;
            expect(readNumber(text), text).to.equal(value);
          }
        },
      ),
    );
  });
});
