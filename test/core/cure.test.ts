/** The cure: intervals that hold what they say on made-up bars, the settled rule, and weighings that fit no cure. */
import { expect } from 'chai';
import fc from 'fast-check';
import { cure } from '../../src/core/curing/cure';
import type { CureWeighing, Interval } from '../../src/core/curing/cure-types';
import { makeCure } from '../support/cures';
import { many } from '../support/many';

/** Batches a run looks at, and how far from 80 of 100 all but one draw in a thousand stay. */
const BATCHES = many(20, 300);
const SLACK = 3.3 * Math.sqrt((0.8 * 0.2) / BATCHES);
const holds = (interval: Interval | null, value: number) =>
  interval !== null && interval.low <= value + 1e-9 && value <= interval.high + 1e-9;

const weighings = (bar: string, rows: readonly (readonly [day: number, massG: number])[]): CureWeighing[] =>
  rows.map(([day, massG]) => ({ bar, day, massG }));
const DRYING = weighings('1', [
  [2, 100],
  [6, 96.1],
  [11, 93.4],
  [17, 91.9],
  [24, 91],
  [31, 90.6],
  [38, 90.5],
]);

describe('the cure', () => {
  for (const times of [4, 8]) {
    it(`holds the truth in about 80 of 100 intervals, with ${times} weighings`, () => {
      const hits = { loss: 0, ready: 0, ratio: 0, whole: 0 };
      for (let seed = 0; seed < BATCHES; seed++) {
        const { weighings: rows, readabilityG, truth } = makeCure(40_000 + 13 * seed + times, times);
        const { lossPerDayPct, readyOnDay, massRatio, settledG } = cure(rows, { readabilityG });
        const now = Math.max(...rows.map(({ day }) => day));
        const whole = Object.values(truth.settledG).reduce((sum, massG) => sum + massG, 0);
        if (holds(lossPerDayPct, truth.lossPerDayPct(now))) hits.loss++;
        if (holds(readyOnDay, truth.readyOnDay(28))) hits.ready++;
        if (holds(massRatio && { ...massRatio, likely: massRatio.typical }, truth.ratio)) hits.ratio++;
        if (holds(settledG, whole)) hits.whole++;
      }
      for (const [what, count] of Object.entries(hits))
        expect(count / BATCHES, what).to.be.within(0.8 - SLACK, Math.min(1, 0.84 + SLACK));
    });
  }

  it('is never settled too early: before the least days, seven days of weighing, three weighings, or while it loses', () => {
    const row = fc.record({
      day: fc.double({ min: 0, max: 60, noNaN: true }),
      massG: fc.double({ min: 80, max: 82, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(row, { maxLength: 6 }), fc.integer({ min: 0, max: 60 }), (rows, minDays) => {
        const given = rows.map((one) => ({ ...one, bar: '1' }));
        const found = cure(given, { readabilityG: 0.1, minDays });
        const days = given.map(({ day }) => day);
        if (!found.settled) return;
        expect(new Set(days).size).to.be.at.least(3);
        expect(Math.max(...days) - Math.min(...days)).to.be.at.least(7);
        expect(Math.max(...days)).to.be.at.least(minDays);
        expect(found.lossPerDayPct!.high).to.be.below(0.05);
        expect(found.needs).to.deep.equal([]);
      }),
      { numRuns: 40 },
    );
  });

  it('tells a plain course: settled after a month, with what it came to', () => {
    const found = cure(DRYING, { readabilityG: 0.1 });
    expect(found.settled).to.equal(true);
    expect(found.bars).to.have.length(1);
    expect(found.bars[0]).to.include({ bar: '1', firstG: 100, lastG: 90.5 });
    expect(found.bars[0]!.lossPct).to.be.closeTo(9.5, 1e-9);
    expect(found.settledG!.likely).to.be.within(89.5, 91);
    expect(found.curve[0]!.likelyG).to.be.above(100);
    expect(cure(DRYING.slice(0, 4), { readabilityG: 0.1 }).settled).to.equal(false);
  });

  it('draws no curve before three weighings, and says what is wanted', () => {
    for (const rows of [[], DRYING.slice(0, 1), DRYING.slice(0, 2)]) {
      const found = cure(rows);
      expect([found.lossPerDayPct, found.massRatio, found.readyOnDay, found.settledG]).to.deep.equal([
        null,
        null,
        null,
        null,
      ]);
      expect(found.curve).to.deep.equal([]);
      expect(found.settled).to.equal(false);
      expect(found.needs.join(' ')).to.match(/formula’s prediction/);
    }
    expect(cure(DRYING.slice(0, 3)).isWide).to.equal(true);
    expect(cure(DRYING.slice(0, 3)).needs.join(' ')).to.match(/wide/);
    // Three bars weighed once are no three weighings of one bar.
    expect(cure(['1', '2', '3'].map((bar) => ({ bar, day: 3, massG: 95 }))).massRatio).to.equal(null);
  });

  it('is narrower with more weighings, and the same for the same', () => {
    const width = ({ massRatio }: ReturnType<typeof cure>) => massRatio!.high - massRatio!.low;
    expect(width(cure(DRYING, { readabilityG: 0.1 }))).to.be.below(
      width(cure(DRYING.slice(0, 4), { readabilityG: 0.1 })),
    );
    expect(cure(DRYING, { readabilityG: 0.1 })).to.deep.equal(cure(DRYING, { readabilityG: 0.1 }));
  });

  it('reckons all bars from what was poured, where that is known', () => {
    const found = cure(DRYING, { readabilityG: 0.1, pouredG: 1440, bars: 14 });
    expect(found.settledG!.likely / found.massRatio!.typical).to.be.closeTo(1440, 15);
    const without = cure(DRYING, { readabilityG: 0.1, bars: 10 });
    expect(without.settledG!.likely).to.be.closeTo(10 * without.bars[0]!.settledG!.likely, 5);
  });

  it('points out ounces, another bar and weight that rises, and leaves them in until told', () => {
    const with_ = (at: number, massG: number) =>
      DRYING.map((one, place) => (place === at ? { ...one, massG } : one));
    const codes = (rows: readonly CureWeighing[]) =>
      cure(rows, { readabilityG: 0.1 }).doubts.map(({ weighing, code }) => [weighing, code]);
    expect(codes(DRYING)).to.deep.equal([]);
    expect(codes(with_(3, 3.24))).to.deep.equal([[3, 'ounces']]);
    expect(codes(with_(0, 3.53))).to.deep.equal([[0, 'ounces']]);
    expect(codes(with_(4, 104))).to.deep.equal([[4, 'swapped']]);
    expect(codes(with_(4, 61))).to.deep.equal([[4, 'swapped']]);
    expect(codes(with_(5, 92.4))).to.deep.equal([[5, 'rises']]);
    const odd = with_(4, 104);
    const left = cure(odd, { readabilityG: 0.1, leaveOut: [4] });
    expect(left.doubts).to.deep.equal([]);
    const plain = cure(
      DRYING.filter((_, place) => place !== 4),
      { readabilityG: 0.1 },
    );
    expect(left.massRatio).to.deep.equal(plain.massRatio);
    const kept = cure(odd, { readabilityG: 0.1 }).massRatio!;
    expect(kept.high - kept.low).to.be.above(plain.massRatio!.high - plain.massRatio!.low);
  });

  it('takes bars weighed one after the other as one round, and stays bounded however much was weighed', () => {
    const round = (minutes: number) =>
      DRYING.flatMap(({ day, massG }) =>
        ['1', '2', '3'].map((bar, at) => ({ bar, day: day + (at * minutes) / 1440, massG: massG + at })),
      );
    const [at, after] = [cure(round(0), { readabilityG: 0.1 }), cure(round(2), { readabilityG: 0.1 })];
    expect(after.massRatio!.typical).to.be.closeTo(at.massRatio!.typical, 0.004);
    const many = Array.from({ length: 2000 }, (_, bar) =>
      DRYING.slice(0, 4).map((one) => ({ ...one, bar: `b${bar}` })),
    ).flat();
    const found = cure(many, { readabilityG: 0.1 });
    expect(found.bars).to.have.length(2000);
    expect(found.bars.filter(({ settledG }) => settledG !== null)).to.have.length(30);
    const often = Array.from({ length: 3000 }, (_, step) => ({
      bar: '1',
      day: 2 + step / 50,
      massG: 88 + 12 * Math.exp(-(2 + step / 50) / 9),
    }));
    expect(cure(often, { readabilityG: 0.1 }).massRatio!.typical).to.be.within(0.86, 0.9);
  });

  it('reckons with what can be reckoned with', () => {
    const odd = [
      ...DRYING,
      { bar: '1', day: -3, massG: 90 },
      { bar: '1', day: 40, massG: 0 },
      { bar: '1', day: NaN, massG: 90 },
    ];
    expect(cure(odd, { readabilityG: 0.1 }).massRatio).to.deep.equal(
      cure(DRYING, { readabilityG: 0.1 }).massRatio,
    );
    expect(cure(DRYING, { readabilityG: 0, minDays: 0, pouredG: 0, bars: 0 }).massRatio).not.to.equal(null);
  });
});
