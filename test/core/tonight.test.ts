/** What to pour tonight: what a pour is worth, which bars are told, and that it does better than simple rules. */
import { expect } from 'chai';
import fc from 'fast-check';
import { tonight, worthOf, type Candidate, type TonightBar } from '../../src/core/stock/tonight';
import { byTurns, byWorth, soldYears, whenNearlyGone } from '../support/sold-years';

const DAY = { today: '2026-11-24', cureDays: 42 };
const exactly = (perWeek: number) => ({ low: perWeek, likely: perWeek, high: perWeek });
const bar = (more: Partial<Candidate> = {}): Candidate => ({
  ...{ perWeek: exactly(7), ready: 42, coming: [], wanted: [], bars: 24 },
  ...more,
});

describe('what a pour of tonight is worth', () => {
  it('is what would be lost from the day it is ready to its next turn', () => {
    // One a day, 42 there: empty the day before the pour is ready; three weeks of one a day are wanted then.
    const { saved, stale } = worthOf(bar(), DAY);
    expect(saved).to.be.closeTo(22, 1.01);
    expect(stale).to.equal(0);
    // A week more on the shelf is a week less to save.
    expect(worthOf(bar({ ready: 49 }), DAY).saved).to.be.closeTo(saved - 7, 1.01);
    expect(worthOf(bar({ ready: 400 }), DAY).saved).to.equal(0);
  });

  it('counts what is on its way, and what is wanted by a day', () => {
    const coming = [{ bars: 30, readyOn: '2027-01-02' }];
    expect(worthOf(bar({ coming }), DAY).saved).to.equal(0);
    const wanted = [{ bars: 20, day: '2027-01-20' }];
    expect(worthOf(bar({ perWeek: null, ready: 0, wanted }), DAY)).to.include({ saved: 20, stale: 4 });
  });

  it('is never more than the pour, nor less for a faster pace, and nothing where nothing sells', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 1, max: 96 }),
        (pace, ready, bars) => {
          const spread = (of: number) => ({ low: of / 1.5, likely: of, high: of * 1.5 });
          const slow = worthOf(bar({ perWeek: spread(pace), ready, bars }), DAY);
          const fast = worthOf(bar({ perWeek: spread(2 * pace), ready, bars }), DAY);
          expect(slow.saved).to.be.within(0, bars + 1e-9);
          expect(slow.stale).to.be.within(0, bars + 1e-9);
          expect(fast.saved).to.be.at.least(slow.saved - 1e-9);
          expect(fast.stale).to.be.at.most(slow.stale + 1e-9);
        },
      ),
    );
    const none = worthOf(bar({ perWeek: null, ready: 0 }), DAY);
    expect(none).to.include({ saved: 0, stale: 24 });
    expect(none.value).to.be.below(0);
  });

  it('offers what is there and within its limits, most first, and tells what would be better bought', () => {
    const one = (id: string, value: number, more: Partial<TonightBar> = {}): TonightBar => ({
      ...{ id, worth: { saved: value, stale: 0, value }, verdict: 'clear', missing: [] },
      ...more,
    });
    const found = tonight([
      one('a', 3),
      one('b', 9, { missing: ['clove'] }),
      one('c', 12, { verdict: 'over' }),
      one('d', 5),
      one('e', 0.1),
      one('f', 20, { verdict: null }),
      one('g', 4, { worth: null }),
    ]);
    expect(found.best.map(({ id }) => id)).to.deep.equal(['d', 'a', 'e']);
    expect(found.better?.id).to.equal('b');
    expect(tonight([one('a', 3)]).better).to.equal(null);
    expect(tonight([one('e', 0.1)])).to.deep.equal({ best: [], better: null });
    expect(tonight([])).to.deep.equal({ best: [], better: null });
  });

  it('loses fewer sales than pouring what is nearly gone or by turns, and lets less get too old than turns', () => {
    const YEARS = 6;
    const worth = soldYears(YEARS, () => byWorth);
    const [gone, turns] = [soldYears(YEARS, () => whenNearlyGone(2)), soldYears(YEARS, () => byTurns)];
    expect(worth.lost).to.be.below(0.6 * gone.lost);
    expect(worth.lost).to.be.below(turns.lost);
    expect(worth.outOfStock).to.be.below(gone.outOfStock);
    expect(worth.stale).to.be.below(0.2 * turns.stale);
    expect(worth.pours).to.be.below(turns.pours);
  });
});
