/** Bars laid on the pan one after the other: taken at rest, never while they move, and an empty pan is told. */
import { expect } from 'chai';
import type { Reading } from '../../src/core/weighing/follow';
import { steadyG } from '../../src/core/weighing/steady';

/** Readings ten a second from a list of grams. */
const readings = (grams: readonly (number | null)[]): Reading[] =>
  grams.map((g, at) => ({ atMs: 100 * at, g }));
const held = (g: number, count: number) =>
  Array.from({ length: count }, (_, at) => g + (at % 2 === 0 ? 0.05 : -0.05));

describe('what rests on the pan', () => {
  it('is told once the readings have stayed together for a while', () => {
    expect(steadyG(readings(held(92.4, 15)), 0.1)).to.be.closeTo(92.4, 0.06);
    expect(steadyG(readings(held(92.4, 5)), 0.1)).to.equal(null);
  });

  it('is nothing yet while the bar is set down, leant on or knocked', () => {
    const settling = Array.from({ length: 15 }, (_, at) => 92.4 * (1 - Math.exp(-at / 4)));
    expect(steadyG(readings(settling), 0.1)).to.equal(null);
    expect(steadyG(readings([...held(92.4, 12), 96, 92.4]), 0.1)).to.equal(null);
    expect(steadyG(readings([...settling, ...held(92.4, 12)]), 0.1)).to.be.closeTo(92.4, 0.06);
  });

  it('is zero for an empty pan, drift and all, and null for a display that says nothing', () => {
    expect(steadyG(readings(held(0.2, 15)), 0.1)).to.equal(0);
    expect(steadyG(readings([...held(92.4, 12), null]), 0.1)).to.equal(null);
    expect(steadyG(readings([...held(92.4, 10), null, ...held(92.4, 3)]), 0.1)).to.equal(null);
    expect(steadyG([], 0.1)).to.equal(null);
  });

  it('asks of a coarse scale no more than it shows', () => {
    expect(steadyG(readings([92, 93, 92, 92, 93, 92, 92, 92, 93, 92, 92, 92]), 1)).to.equal(92);
    expect(steadyG(readings([92, 93, 92, 92, 93, 92, 92, 92, 93, 92, 92, 92]), 0.1)).to.equal(null);
  });
});
