/** Bars in and out: the count balances over random histories; rows find their batches; the pace and its uncertainty. */
import { expect } from 'chai';
import fc from 'fast-check';
import { refusalOf } from '../../src/core/batch/admit';
import { extendBatch, foldBatch } from '../../src/core/batch/fold';
import type { BatchEvent } from '../../src/core/batch/types';
import { runSheet } from '../../src/core/making/run-sheet';
import { allocateSale, batchesByName, type SaleName, type SaleSource } from '../../src/core/stock/sales';
import { nextPour, paceOf, type Supply } from '../../src/core/stock/pace';
import { LIBRARY } from '../../src/library';

const made = runSheet(
  {
    alkali: { superfatPct: 5, purityPct: 100 },
    lines: [
      { id: 'o', material: 'olive', stage: 'fats', amount: { value: 500, unit: 'g' } },
      { id: 'w', material: 'water', stage: 'liquid', amount: { value: 165, unit: 'g' } },
    ],
  },
  LIBRARY.filter(({ id }) => id === 'olive' || id === 'water'),
);
if (!made.ok) throw new Error('The sheet is not made.');
const { ok: _ok, ...sheet } = made;

let count = 0;
const event = (type: string, more: object, at = '2026-10-02T08:00:00Z'): BatchEvent =>
  ({ id: `s${++count}`, type, at, by: null, ...more }) as unknown as BatchEvent;
const begun = (code = 'P-1') =>
  event('started', { product: 'p', version: 1, formula: sheet.formula, materials: [], sheet, code });
const cutInto = (bars: number, seconds: number, code?: string) => [
  begun(code),
  event('poured', { moulds: [], leftoverG: 0 }),
  event('cut', { bars, seconds, trimmingsG: 0 }),
];

describe('the ledger of bars', () => {
  it('balances over 1,000 random histories: none sold that was not released, none gone twice', () => {
    const moves = fc.oneof(
      fc.record({
        type: fc.constant('released'),
        bars: fc.integer({ min: 1, max: 12 }),
        netMassG: fc.constant(90),
        markets: fc.constantFrom(['EU'], ['UK'], ['EU', 'UK']),
      }),
      fc.record({
        type: fc.constant('moved'),
        bars: fc.integer({ min: 1, max: 9 }),
        how: fc.constantFrom('sale', 'sample', 'loss', 'own'),
        market: fc.constantFrom('EU', 'UK', null),
      }),
      fc.record({
        type: fc.constant('sorted'),
        bars: fc.integer({ min: 1, max: 6 }),
        reason: fc.constant('too light'),
      }),
      fc.record({ type: fc.constant('quarantined'), reason: fc.constant('odd') }),
      fc.record({
        type: fc.constant('decided'),
        decision: fc.constantFrom('release', 'rework', 'discard'),
        reason: fc.constant('looked at'),
      }),
    );
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 0, max: 4 }),
        fc.array(moves, { maxLength: 25 }),
        (bars, seconds, told) => {
          const events = cutInto(bars, Math.min(seconds, bars));
          const batch = foldBatch(events)!;
          for (const { type, ...more } of told) {
            const one = event(type, more);
            if (refusalOf(batch, one)) continue;
            events.push(one);
            extendBatch(batch, one);
          }
          const again = foldBatch(events)!;
          expect(again.bars).to.deep.equal(batch.bars);
          const sum = (how: string[]) =>
            batch.moved.filter((one) => how.includes(one.how)).reduce((total, one) => total + one.bars, 0);
          const sorted = batch.sorted.reduce((total, one) => total + one.bars, 0);
          expect(batch.bars.good).to.equal(bars - Math.min(seconds, bars) - sorted);
          expect(batch.bars.left + sum(['sale', 'sample', 'loss', 'own'])).to.equal(batch.bars.good);
          expect(batch.bars.left).to.be.at.least(0);
          expect(sum(['sale'])).to.be.at.most(batch.bars.released);
          expect(batch.bars.released).to.be.at.most(batch.bars.good);
          for (const { how, market } of batch.moved)
            if (how === 'sale' && market)
              expect(batch.released.some(({ markets }) => markets.includes(market))).to.equal(true);
        },
      ),
      { numRuns: 1000 },
    );
  });
});

function source(id: string, bars: number, releasedOn: string, markets = ['EU']): SaleName & SaleSource {
  const events = [
    ...cutInto(bars, 0, id.toUpperCase()),
    event('released', { bars, netMassG: 90, markets }, `${releasedOn}T08:00:00Z`),
  ];
  const batch = foldBatch(events)!;
  return { id, code: batch.code, product: 'night-mail', productName: 'Night Mail', batch };
}

describe('a row of what went out', () => {
  const sources = [source('nm-1', 3, '2026-10-10'), source('nm-2', 5, '2026-11-01', ['EU', 'UK'])];
  const row = { day: '2026-11-10', what: 'Night Mail', bars: 4, how: 'sale' as const, market: 'EU' as const };
  const partsOf = (more: object) => {
    const asked = { ...row, ...more };
    const found = allocateSale(asked, batchesByName(sources)(asked.what), 'UTC');
    return found.ok ? found.parts.map(({ batch, bars }) => `${batch} ${bars}`) : found.code;
  };
  it('takes from the oldest first, across batches, from those released for the market by the day', () => {
    expect(partsOf({})).to.deep.equal(['nm-1 3', 'nm-2 1']);
    expect(partsOf({ market: 'UK' })).to.deep.equal(['nm-2 4']);
    expect(partsOf({ day: '2026-10-20', bars: 2 })).to.deep.equal(['nm-1 2']);
    expect(partsOf({ what: 'nm-2/4', bars: 1 })).to.deep.equal(['nm-2 1']);
    expect(partsOf({ how: 'sample', market: null, bars: 8 })).to.deep.equal(['nm-1 3', 'nm-2 5']);
  });
  it('says what is wrong with it', () => {
    expect(partsOf({ bars: 9 })).to.equal('not-enough-bars');
    expect(partsOf({ what: 'Nightmail' })).to.equal('unknown-bar');
    expect(partsOf({ market: 'US' })).to.equal('not-released');
    // A note about something else is no word on why it is sold there.
    expect(partsOf({ market: 'US', note: 'paid in cash' })).to.equal('not-released');
    expect(partsOf({ market: 'US', despite: 'sent to a friend' })).to.deep.equal(['nm-1 3', 'nm-2 1']);
    expect(partsOf({ day: '2026-10-01' })).to.equal('not-released');
  });
});

describe('the pace of sales', () => {
  const weekly = (weeks: number, bars: number) =>
    Array.from({ length: weeks }, (_, at) => ({
      day: new Date(Date.UTC(2026, 8, 5 + 7 * at)).toISOString().slice(0, 10),
      bars,
    }));
  it('is bars a week with its uncertainty, narrower the more is known', () => {
    const short = paceOf(weekly(3, 6), '2026-09-01', '2026-09-24').perWeek!;
    const long = paceOf(weekly(11, 6), '2026-09-01', '2026-11-19').perWeek!;
    for (const { low, likely, high } of [short, long]) {
      expect(low).to.be.below(likely);
      expect(likely).to.be.below(high);
      expect(likely).to.be.within(4, 8);
    }
    expect((long.high - long.low) / long.likely).to.be.below((short.high - short.low) / short.likely);
    expect(paceOf([], '2026-09-01', '2026-11-19').perWeek).to.equal(null);
  });

  const flat = (perWeek: number) => ({
    perWeek: { low: perWeek, likely: perWeek, high: perWeek },
    weeks: 10,
    sold: 10 * perWeek,
  });
  const supply: Supply = { ready: 10, curing: [{ batch: 'b', bars: 12, readyOn: '2026-12-15' }] };
  it('says when to pour again: a cure before the stock ends', () => {
    // 10 bars at 2 a week last to the middle of the sixth week; 12 more come in the fourth.
    const { endsOn, startBy } = nextPour(flat(2), supply, [], '2026-11-24', 42);
    expect(endsOn).to.equal('2027-02-10');
    expect(startBy).to.equal('2026-12-30');
    // At 4 a week the ten are gone on the eighteenth day, before the others are ready.
    expect(nextPour(flat(4), supply, [], '2026-11-24', 42).endsOn).to.equal('2026-12-12');
  });
  it('counts what is wanted by a day, and asks for nothing where nothing sells', () => {
    const need = { name: 'Fair', day: '2026-12-05', bars: 11 };
    expect(nextPour(flat(0), supply, [need], '2026-11-24', 42)).to.include({
      endsOn: '2026-12-05',
      why: '11 wanted for Fair',
    });
    expect(nextPour(flat(0), supply, [{ ...need, day: '2026-12-20' }], '2026-11-24', 42).endsOn).to.equal(
      null,
    );
    expect(nextPour({ perWeek: null, weeks: 1, sold: 0 }, supply, [], '2026-11-24', 42).startBy).to.equal(
      null,
    );
  });
});
