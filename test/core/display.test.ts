/** Displays that move in other steps than was said, or slowly: seen from what they show, never settled on too early. */
import { expect } from 'chai';
import { followScale, startFollowing, type Following, type Reading } from '../../src/core/weighing/follow';
import { stepSeen } from '../../src/core/weighing/display';
import { seeded } from '../support/generate';
import { trace, type Happening, type TracePoint } from '../support/traces';

const OUNCE_G = 28.349523125;
const rounded = (g: number, step: number) => Math.round(g / step) * step;
const REST: Happening = { do: 'rest', seconds: 5 };

/** Follows a trace; counts pours, those settled while the hand rested, and those settled on a wrong mass. */
function tally(points: readonly TracePoint[], saidG: number, restS = 3) {
  let state: Following = startFollowing({ readabilityG: saidG });
  const count = { pours: 0, settled: 0, wrong: 0, midPour: 0 };
  let [since, before] = [false, 0];
  for (const point of points) {
    state = followScale(state, point);
    since = point.restingS > 0 && (since || state.settled);
    if (state.settled && point.pouringS > 1.2) count.midPour++;
    if (state.settled && point.restingS > 0 && Math.abs(state.heldG - point.trueG) > state.doubtG + 1e-9)
      count.wrong++;
    if (point.restingS >= restS && before < restS) {
      count.pours++;
      if (since) count.settled++;
    }
    before = point.restingS;
  }
  return { ...count, state };
}

function day(seed: number, readabilityG: number, rest = 5): TracePoint[] {
  const random = seeded(seed);
  const happenings: Happening[] = [REST];
  for (let pour = 0; pour < 6; pour++)
    happenings.push(
      { do: 'pour', g: readabilityG * (60 + 900 * random()), seconds: 1 + 4 * random() },
      { do: 'rest', seconds: rest },
    );
  return trace(happenings, { seed, readabilityG, settlingS: 0.4 + random() * 0.8 });
}

describe('the step of a display', () => {
  it('is seen from what it shows: decimals, ounces, whole grams; until then what was said stands', () => {
    expect(stepSeen([1.3, 4.6, 9.1], 1)).to.equal(0.1);
    expect(stepSeen([4.61], 0.1)).to.equal(0.01);
    expect(stepSeen([1, 2], 0.1)).to.equal(0.1);
    expect(stepSeen([3, 17, 24, 41, 58, 62], 0.1)).to.equal(1);
    expect(stepSeen([15, 5, 20, 35, 60, 95], 1)).to.equal(5);
    const ounces = [1, 3, 4, 7, 12, 13].map((steps) => steps * 0.05 * OUNCE_G);
    expect(stepSeen(ounces, 0.1)).to.be.closeTo(0.05 * OUNCE_G, 1e-9);
    expect(stepSeen([0.3, 0.9], 0.3)).to.equal(0.3);
  });

  it('grows and shrinks with the unit at the scale, and what is settled on is right in every trace', () => {
    const sum = { pours: 0, settled: 0, wrong: 0 };
    for (let seed = 1; seed <= 60; seed++) {
      const points = day(seed, 0.1);
      const from = Math.floor(points.length * 0.4);
      const step = 0.05 * OUNCE_G;
      const switched = points.map((point, at) =>
        at < from || point.g === null ? point : { ...point, g: rounded(point.g, step) },
      );
      const { pours, settled, wrong, state } = tally(switched, 0.1);
      sum.pours += pours;
      sum.settled += settled;
      sum.wrong += Math.sign(wrong);
      expect(state.readabilityG, `${seed}`).to.be.closeTo(step, 1e-9);
    }
    expect(sum.wrong, JSON.stringify(sum)).to.be.at.most(2);
    expect(sum.settled / sum.pours).to.be.above(0.95);
  });

  it('is taken as it is where another was said: a coarser display doubts more, a finer one less', () => {
    for (const [real, said] of [
      [1, 0.1],
      [0.1, 1],
      [0.01, 0.1],
      [5, 1],
    ] as const)
      for (let seed = 1; seed <= 12; seed++) {
        const { wrong, state, settled, pours } = tally(day(700 + seed, real), said);
        expect(state.readabilityG, `${real} said ${said}`).to.equal(real);
        expect(wrong, `${real} said ${said} ${seed}`).to.equal(0);
        expect(settled).to.be.at.least(pours - 1);
      }
  });

  it('that speaks once a second, each line repeated ten times or not, settles late and never in mid-pour', () => {
    const sum = { pours: 0, settled: 0, wrong: 0, midPour: 0 };
    for (let seed = 1; seed <= 40; seed++) {
      const points = day(300 + seed, 1, 12);
      let last = points[0]!;
      const slow = points.map((point, at): TracePoint => {
        if (at % 10 === 0) last = point;
        // A line that is repeated keeps the moment it was said at.
        return { ...point, g: last.g, atMs: last.atMs } satisfies Reading & TracePoint;
      });
      const { pours, settled, wrong, midPour } = tally(slow, 1, 9);
      sum.pours += pours;
      sum.settled += settled;
      sum.wrong += Math.sign(wrong);
      sum.midPour += Math.sign(midPour);
    }
    expect(sum.midPour, JSON.stringify(sum)).to.equal(0);
    expect(sum.wrong, JSON.stringify(sum)).to.be.at.most(1);
    expect(sum.settled / sum.pours, JSON.stringify(sum)).to.be.above(0.85);
  });
});
