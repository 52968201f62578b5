/** What a stock counts on: released bars that are here, and those on their way; none that went already. */
import { expect } from 'chai';
import { nextLot } from '../../src/core/making/cost';
import { comingBars, readyBars } from '../../src/core/stock/supply';

const batch = (state: string, bars: object, more = {}) =>
  ({
    ...{ state, isQuarantined: false, cut: { bars: 20 }, sheet: { bars: 22 } },
    bars: { good: 20, released: 0, gone: 0, left: 20, ...bars },
    ...more,
  }) as never;

describe('the lot to take', () => {
  const lot = (id: string, more: object) =>
    ({
      id,
      leftG: 5,
      quarantine: null,
      bestBefore: null,
      openedOn: null,
      receivedOn: '2026-01-01',
      ...more,
    }) as never;
  const of = (...lots: never[]) => nextLot(lots, '2026-11-24')?.id ?? null;

  it('is the one that is open, then the older; never one that is empty, held back or past its day', () => {
    const old = lot('old', { receivedOn: '2025-01-01' });
    const open = lot('open', { openedOn: '2026-10-01' });
    expect(of(lot('new', {}), old)).to.equal('old');
    expect(of(old, open)).to.equal('open');
    expect(of(lot('empty', { leftG: 0 }), lot('held', { quarantine: 'cloudy' }))).to.equal(null);
    expect(of(lot('past', { openedOn: '2026-01-01', bestBefore: '2026-11-23' }), old)).to.equal('old');
    expect(of(lot('last day', { bestBefore: '2026-11-24' }))).to.equal('last day');
  });
});

describe('bars that a stock counts on', () => {
  it('of a batch released in part are ready as far as they were released and did not go', () => {
    const part = batch('released', { released: 8, gone: 3, left: 17 });
    expect([readyBars(part), comingBars(part)]).to.deep.equal([5, 12]);
    const whole = batch('released', { released: 20, gone: 6, left: 14 });
    expect([readyBars(whole), comingBars(whole)]).to.deep.equal([14, 0]);
  });

  it('that are curing come less what went; before the cut as the sheet makes them; held back, none', () => {
    const curing = batch('curing', { gone: 2, left: 18 });
    expect([readyBars(curing), comingBars(curing)]).to.deep.equal([0, 18]);
    expect(comingBars(batch('poured', {}, { cut: null }))).to.equal(22);
    const held = batch('released', { released: 20 }, { isQuarantined: true });
    expect([readyBars(held), comingBars(held)]).to.deep.equal([0, 0]);
    expect(comingBars(batch('discarded', {}))).to.equal(0);
  });
});
