/** Which bar on which day narrows the ready day: held against weighing whichever comes. */
import { expect } from 'chai';
import { cure } from '../../src/core/curing/cure';
import { nextWeighing } from '../../src/core/curing/next-weighing';
import type { CureWeighing } from '../../src/core/curing/cure-types';
import { seeded } from '../support/generate';

const OPTIONS = { minDays: 28, readabilityG: 0.1 };

/** A bar that loses by one exponential, read by a scale of tenths. */
function curve(seed: number) {
  const random = seeded(seed);
  const [loss, tau] = [0.08 + 0.08 * random(), 6 + 10 * random()];
  const massAt = (startG: number, day: number) =>
    Math.round(10 * startG * (1 - loss * (1 - Math.exp(-day / tau))) + 0.6 * (random() - 0.5)) / 10;
  const weighings: CureWeighing[] = [1, 5, 10].flatMap((day) => [
    { bar: '1', day, massG: massAt(120, day) },
    ...(day < 6 ? [{ bar: '2', day, massG: massAt(118, day) }] : []),
    { bar: '3', day, massG: massAt(121, day) },
  ]);
  return { weighings, massAt };
}

describe('the bar to weigh next', () => {
  it('is one of the batch, on a day to come, and narrows the day it is ready', () => {
    for (const seed of [1, 2]) {
      const { weighings } = curve(seed);
      const next = nextWeighing(weighings, OPTIONS, 12)!;
      expect(next, `${seed}`).to.not.equal(null);
      expect(['1', '2', '3']).to.include(next.bar);
      expect(next.day).to.be.within(12, 19);
      expect(next.thenDays).to.be.below(next.nowDays);
    }
  }).timeout(60_000);

  it('tells more than the same bar weighed at once, as often as not more, over some curves', () => {
    let better = 0;
    let tried = 0;
    for (const seed of [11, 12]) {
      const { weighings, massAt } = curve(seed);
      const next = nextWeighing(weighings, OPTIONS, 12);
      if (!next) continue;
      tried++;
      const start = { '1': 120, '2': 118, '3': 121 }[next.bar]!;
      const width = (bar: string, startG: number, day: number) => {
        const { readyOnDay } = cure([...weighings, { bar, day, massG: massAt(startG, day) }], OPTIONS);
        return readyOnDay!.high - readyOnDay!.low;
      };
      if (width(next.bar, start, next.day) <= width('3', 121, 10.6)) better++;
    }
    expect(tried).to.be.above(0);
    expect(better / tried).to.be.at.least(0.5);
  }).timeout(60_000);

  it('is none where nothing was weighed, or the batch has settled', () => {
    expect(nextWeighing([], OPTIONS, 3)).to.equal(null);
    const settled: CureWeighing[] = [30, 36, 42, 50, 60].flatMap((day) => [{ bar: '1', day, massG: 100 }]);
    expect(cure(settled, OPTIONS).settled).to.equal(true);
    expect(nextWeighing(settled, OPTIONS, 61)).to.equal(null);
  });
});
