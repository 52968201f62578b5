/** How well a course fits: the quick form over days against the whole Gaussian written out, weighing by weighing. */
import { expect } from 'chai';
import fc from 'fast-check';
import { barLogs, evidence, logLikely, sight } from '../../src/core/curing/evidence';
import { invert, zeros, type Matrix } from '../../src/core/numerics/linear';
import { goneBy, lossPerDayPct } from '../../src/core/curing/model';

interface Row {
  bar: string;
  day: number;
  massG: number;
}

const NOISE_G = 0.2;
const WEATHER = 0.001;
/** Bars' masses are unknown: in the whole Gaussian, a spread so wide that it says nothing. */
const WIDE = 1e4;

/** Log likelihood by the covariance of all weighings, with bars' masses given a very wide spread. */
function wholeGaussian(rows: readonly Row[], course: (day: number) => number): number {
  const size = rows.length;
  const covariance: Matrix = zeros(size, size);
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++) {
      const [a, b] = [rows[i]!, rows[j]!];
      covariance[i]![j] =
        WEATHER ** 2 * Math.min(a.day, b.day) +
        (a.bar === b.bar ? WIDE : 0) +
        (i === j ? (NOISE_G / a.massG) ** 2 : 0);
    }
  const { inverse, logDet } = invert(covariance);
  const rest = rows.map(({ day, massG }) => Math.log(massG) - course(day));
  let square = 0;
  for (let i = 0; i < size; i++)
    for (let j = 0; j < size; j++) square += rest[i]! * inverse[i]![j]! * rest[j]!;
  return -0.5 * (logDet + square);
}

const courses = fc.record({
  loss: fc.double({ min: 0.06, max: 0.2, noNaN: true }),
  daysFast: fc.double({ min: 4, max: 30, noNaN: true }),
  daysSlow: fc.double({ min: 4, max: 30, noNaN: true }),
  fastShare: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
});

describe('the evidence of weighings', () => {
  const rows: Row[] = [
    { bar: 'a', day: 2, massG: 98.2 },
    { bar: 'a', day: 6, massG: 95.1 },
    { bar: 'a', day: 13, massG: 92 },
    { bar: 'a', day: 21, massG: 90.6 },
    { bar: 'b', day: 2, massG: 110.3 },
    { bar: 'b', day: 13, massG: 103.2 },
    { bar: 'b', day: 21, massG: 101.8 },
  ];
  const sightings = sight(rows, null);
  const made = evidence(sightings, { noiseG: NOISE_G, weatherPerDay: WEATHER, logPrior: 0 });
  const quick = (one: Parameters<typeof goneBy>[0]) =>
    logLikely(
      made,
      Float64Array.from(sightings.days, (day) => Math.log1p(-goneBy(one, day))),
    );

  it('prefers one course to another by as much as the whole Gaussian does', () => {
    fc.assert(
      fc.property(courses, courses, (a, b) => {
        const whole = (one: typeof a) => wholeGaussian(rows, (day) => Math.log1p(-goneBy(one, day)));
        const [byQuick, byWhole] = [quick(a) - quick(b), whole(a) - whole(b)];
        expect(byQuick).to.be.closeTo(byWhole, 1e-3 * (1 + Math.abs(byWhole)));
      }),
      { numRuns: 60 },
    );
  });

  it('leads back to the bars’ masses at the pour, where the course is the true one', () => {
    const course = { loss: 0.12, daysFast: 9, daysSlow: 9, fastShare: 1 };
    const clean = [3, 8, 15, 25].flatMap((day) =>
      [100, 120].map((pouredG) => ({
        bar: String(pouredG),
        day,
        massG: pouredG * (1 - goneBy(course, day)),
      })),
    );
    const seen = sight(clean, null);
    const ready = evidence(seen, { noiseG: NOISE_G, weatherPerDay: WEATHER, logPrior: 0 });
    const logs = barLogs(
      ready,
      Float64Array.from(seen.days, (day) => Math.log1p(-goneBy(course, day))),
    );
    expect([...logs].map((log) => Math.exp(log))).to.satisfy(
      ([a, b]: number[]) => Math.abs(a! - 100) < 1e-6 && Math.abs(b! - 120) < 1e-6,
    );
  });

  it('loses per day what the course loses between two moments', () => {
    fc.assert(
      fc.property(courses, fc.double({ min: 1, max: 60, noNaN: true }), (course, day) => {
        const step = 1e-4;
        const left = (at: number) => 1 - goneBy(course, at);
        const slope = (100 * (left(day - step) - left(day + step))) / (2 * step) / left(day);
        expect(lossPerDayPct(course, day)).to.be.closeTo(slope, 1e-5 + 1e-4 * slope);
      }),
      { numRuns: 100 },
    );
  });
});
