/** Warmth and weights as the house is used to say them. */
import { expect } from 'chai';
import fc from 'fast-check';
import { machineZone } from '../../src/core/quantities/day';
import {
  clockHere,
  dayHere,
  degreesWords,
  fromDegrees,
  habits,
  inDegrees,
  newAmount,
} from '../../src/ui/habits';

describe('the habits of a house', () => {
  it('say warmth in its degrees and take it back to the same', () => {
    expect(degreesWords(40, { degrees: 'C' })).to.equal('40 °C');
    expect(degreesWords(40, { degrees: 'F' })).to.equal('104 °F');
    expect(inDegrees(-40, { degrees: 'F' })).to.equal(-40);
    fc.assert(
      fc.property(fc.double({ min: -50, max: 300, noNaN: true }), fc.constantFrom('C', 'F'), (c, degrees) => {
        expect(fromDegrees(inDegrees(c, { degrees }), { degrees })).to.be.closeTo(c, 1e-9);
      }),
    );
  });

  it('are the usual ones where no page says otherwise, and a new line is weighed by them', () => {
    expect(habits()).to.deep.equal({
      degrees: 'C',
      weights: 'g',
      zone: machineZone(),
      scentPercents: null,
    });
    expect(newAmount(10)).to.deep.equal({ value: 10, unit: 'g' });
    const page = { documentElement: { dataset: { degrees: 'F', weights: 'oz', zone: 'Asia/Kolkata' } } };
    (globalThis as { document?: object }).document = page;
    try {
      expect(newAmount(10)).to.deep.equal({ value: 0.35, unit: 'oz' });
      expect(degreesWords(100)).to.equal('212 °F');
      expect(dayHere('2026-11-29T23:30:00Z')).to.equal('2026-11-30');
      expect(clockHere('2026-11-29T23:30:00Z')).to.equal('05:00');
    } finally {
      delete (globalThis as { document?: object }).document;
    }
  });
});
