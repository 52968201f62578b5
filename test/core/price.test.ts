/** What is left of a price, reckoned by hand and held to what has to be so of any. */
import { expect } from 'chai';
import fc from 'fast-check';
import {
  halvedLimit,
  NO_PRICING,
  priced,
  whatIfs,
  type Channel,
  type PricedInput,
} from '../../src/core/making/price';
import { oneMore } from '../../src/core/making/one-more';
import { near } from '../support/request';

const channel = (more: Partial<Channel> = {}): Channel => ({
  ...{ id: 'stall', name: 'Stall', feePct: 0, feeEach: 0, taxPct: 0, isTaxIn: true },
  ...more,
});
const input = (more: Partial<PricedInput> = {}, channels = [channel()]): PricedInput => ({
  ...{ price: 6, cost: { total: 24, unpriced: [] }, bars: 24, hours: null },
  pricing: { ...NO_PRICING, packEach: 0.3, energyBatch: 1.2, channels },
  ...more,
});

describe('a price', () => {
  it('leaves what tax, fees, materials, packing and energy leave', () => {
    // 24 of materials, 7.20 of packing, 1.20 of energy over 24 bars: 1.35 a bar.
    const shop = channel({ id: 'shop', feePct: 5, feeEach: 0.2, taxPct: 19 });
    const found = priced(input({}, [channel(), shop, { ...shop, isTaxIn: false }]))!;
    near(found.cost.likely, 1.35);
    near(found.cost.high, 1.45);
    const [stall, within, onTop] = found.channels.map(({ left }) => left.likely);
    near(stall!, 4.65);
    near(within!, 6 / 1.19 - 0.3 - 0.2 - 1.35);
    near(onTop!, 6 - 6 * 1.19 * 0.05 - 0.2 - 1.35);
    near(found.channels[1]!.tax, 6 - 6 / 1.19);
  });

  it('takes the energy of a cooked batch where it is said, and that of any where it is not', () => {
    const pricing = { ...input().pricing, energyHot: 6 };
    near(priced(input({ pricing, isHot: true }))!.cost.likely, (24 + 7.2 + 6) / 24);
    near(priced(input({ pricing }))!.cost.likely, 1.35);
    near(priced(input({ isHot: true }))!.cost.likely, 1.35);
  });

  it('says what half of the closest limit would take away, and what that saves', () => {
    const limit = (
      maxPct: number,
      highPct: number,
      line: string,
      force: 'standard' | 'craft' = 'standard',
    ) => ({
      ...{ force, maxPct, highPct, headroomPct: 100 * (1 - highPct / maxPct) },
      contributors: [{ line, sharePct: 100 }],
    });
    const lines = ['scent', 'clay'].map((line) => ({ line, material: line, massG: 20, cost: 3 }));
    const found = halvedLimit(
      [limit(3, 2.4, 'scent'), limit(2, 1, 'clay'), limit(1, 0.99, 'clay', 'craft')],
      lines,
    )!;
    expect(found.lines).to.deep.equal(['scent']);
    near(found.lessPct, 37.5);
    near(found.saved, 3 * 0.375);
    expect(halvedLimit([limit(3, 1.5, 'scent')], lines)).to.equal(null);
    expect(halvedLimit([], lines)).to.equal(null);
    const told = whatIfs(input(), null, { says: 'Half', saved: 2.4 });
    near(told[0]!.left[0]!.likely, 4.65 + 0.1);
  });

  it('shares what is not sold out over what is, and says when it is below what a bar costs', () => {
    const some = input({ pricing: { ...input().pricing, unsoldPct: 25 } });
    near(priced(some)!.cost.likely, (24 + 7.2 + 1.2) / 18);
    expect(priced({ ...some, price: 1.5 })!.channels[0]!.isBelowCost).to.equal(true);
    expect(priced({ ...some, price: 2 })!.channels[0]!.isBelowCost).to.equal(false);
    expect(priced({ ...some, bars: 0 })).to.equal(null);
    expect(priced({ ...some, pricing: { ...some.pricing, unsoldPct: 100 } })).to.equal(null);
  });

  it('leaves so much an hour, of the hours measured and those said; none where none are known', () => {
    const hours = { low: 1, likely: 1.5, high: 2 };
    const one = priced(input({ hours, pricing: { ...input().pricing, otherHours: 2.5 } }))!;
    near(one.hours!.likely, 4);
    near(one.channels[0]!.perHour!.likely, (4.65 * 24) / 4);
    expect(one.channels[0]!.perHour!.low).to.be.below(one.channels[0]!.perHour!.likely);
    expect(priced(input())!.channels[0]!.perHour).to.equal(null);
  });

  it('never leaves more for a dearer batch, higher fees or taxes, nor less for a higher price; intervals stay in order', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 25, noNaN: true }),
        fc.boolean(),
        (total, feePct, taxPct, isTaxIn) => {
          const at = (price: number, more: Partial<Channel> = {}, dearer = 0) => {
            const one = channel({ feePct, taxPct, isTaxIn, ...more });
            const hours = { low: 1, likely: 2, high: 3 };
            const made = input({ price, hours, cost: { total: total + dearer, unpriced: [] } }, [one]);
            return priced(made)!.channels[0]!;
          };
          const { left, perHour, paid, tax, fees } = at(6);
          for (const { low, likely, high } of [left, perHour!])
            expect(low <= likely + 1e-9 && likely <= high + 1e-9).to.equal(true);
          near(paid - tax - fees - left.likely, (total + 8.4) / 24);
          expect(at(6, {}, 10).left.likely).to.be.below(left.likely);
          expect(at(6, { feePct: feePct + 5 }).left.likely).to.be.below(left.likely);
          expect(at(8).left.likely).to.be.at.least(left.likely);
        },
      ),
    );
  });

  it('makes one bar more from the same batch lighter, narrower where it is cut from a block, and none of cavities', () => {
    const block = { mould: 'Long block', lengthMm: 300, count: 1 };
    const found = oneMore(1020, 12, block)!;
    expect(found.bars).to.equal(13);
    near(found.nowG, 85);
    near(found.thenG, 1020 / 13);
    expect(found.cut).to.deep.equal({ mould: 'Long block', nowMm: 25, thenMm: 300 / 13 });
    near(oneMore(2040, 24, { ...block, count: 2 })!.cut!.nowMm, 25);
    // A slab of 300 mm with two bars is not cut along its length.
    expect(oneMore(400, 2, block)!.cut).to.equal(null);
    expect(oneMore(1020, 12, null)!.cut).to.equal(null);
    expect(oneMore(1020, 12, 'cavities')).to.equal(null);
    expect(whatIfs(input(), null, null, null)).to.deep.equal([]);
    expect(whatIfs(input(), null, null, 'One more')[0]!.says).to.equal('One more');
  });

  it('says what a dearer material, a bar more and every bar sold would do', () => {
    const made = input({ pricing: { ...input().pricing, unsoldPct: 10 } });
    const base = priced(made)!.channels[0]!.left.likely;
    const found = whatIfs(made, { name: 'Olive oil', cost: 10 });
    expect(found.map(({ says }) => says)).to.deep.equal([
      'Olive oil a fifth dearer',
      'One bar more from a batch',
      'Every bar sold',
    ]);
    near(base - found[0]!.left[0]!.likely, 2 / (0.9 * 24));
    expect(found[1]!.left[0]!.likely).to.be.above(base);
    expect(found[2]!.left[0]!.likely).to.be.above(base);
    expect(whatIfs(input(), null).map(({ says }) => says)).to.deep.equal(['One bar more from a batch']);
  });
});
