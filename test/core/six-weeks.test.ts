/** Six weeks of pours: held against every plan there is where these can be tried, and against what must hold anywhere. */
import { expect } from 'chai';
import loadHighs from 'highs';
import { solveWith, type Solve } from '../../src/core/numerics/highs';
import { seededRandom } from '../../src/core/numerics/random';
import { dayAfter, daysBetween, weekdayOf } from '../../src/core/quantities/day';
import { drawn } from '../../src/core/stock/plan-lots';
import {
  bestPours,
  missedBy,
  sixWeeks,
  slotsOf,
  type PlanAsk,
  type PlanBar,
  type PlannedAt,
} from '../../src/core/stock/six-weeks';
import { LEAST_VALUE } from '../../src/core/stock/tonight';

const TODAY = '2026-11-24';

const bar = (id: string, likely: number, ready: number, more: Partial<PlanBar> = {}): PlanBar => ({
  id,
  perWeek: { low: likely * 0.7, likely, high: likely * 1.4 },
  ready,
  coming: [],
  wanted: [],
  bars: 24,
  massG: { olive: 1200 },
  ...more,
});

const ask = (bars: PlanBar[], more: Partial<PlanAsk> = {}): PlanAsk => ({
  today: TODAY,
  cureDays: 42,
  bars,
  evenings: [2],
  room: null,
  lots: {},
  orderDays: 7,
  ...more,
});

/** Every plan of at most one pour an evening. */
function everyPlan(slots: readonly string[], ids: readonly string[]): PlannedAt[][] {
  const [first, ...rest] = slots;
  if (first === undefined) return [[]];
  const later = everyPlan(rest, ids);
  return [...later, ...ids.flatMap((product) => later.map((plan) => [{ product, day: first }, ...plan]))];
}

describe('six weeks of pours', () => {
  let solve: Solve;
  before(async () => {
    solve = solveWith(await loadHighs());
  });

  it('are as good as the best of all plans, tried one by one', () => {
    const random = seededRandom(7);
    for (let round = 0; round < 6; round++) {
      const bars = ['a', 'b'].map((id) =>
        bar(id, 1 + 6 * random.uniform(), Math.round(40 * random.uniform()), {
          bars: 12 + Math.round(24 * random.uniform()),
          wanted:
            random.uniform() < 0.4
              ? [{ bars: 10, day: dayAfter(TODAY, Math.round(50 + 40 * random.uniform())) }]
              : [],
        }),
      );
      const one = ask(bars);
      const costOf = (plan: PlannedAt[]) => missedBy(one, plan) + LEAST_VALUE * plan.length;
      const costs = everyPlan(slotsOf(one), ['a', 'b']).map(costOf);
      const { pours } = sixWeeks(one, solve);
      const best = costs.reduce((least, cost) => Math.min(least, cost), Infinity);
      expect(costOf(pours), JSON.stringify(bars)).to.be.at.most(best + 0.01 * best + 0.05);
    }
  });

  it('keep one pour an evening, the room on the rack, and what is there until an order comes', () => {
    const bars = [
      bar('slow', 2, 4),
      bar('quick', 9, 0),
      bar('next', 6, 10, { coming: [{ bars: 30, readyOn: dayAfter(TODAY, 20) }] }),
    ];
    const one = ask(bars, { evenings: [2, 4], room: 100, lots: { olive: [{ massG: 1300, until: null }] } });
    const { pours } = sixWeeks(one, solve);
    expect(pours.length).to.be.above(3);
    expect(new Set(pours.map(({ day }) => day)).size).to.equal(pours.length);
    for (const { day } of pours) expect([2, 4]).to.include(weekdayOf(day));
    for (const { day } of pours) {
      const curing = pours.filter((pour) => pour.day <= day && daysBetween(pour.day, day) < 42).length * 24;
      expect(curing + (day < dayAfter(TODAY, 20) ? 30 : 0), day).to.be.at.most(100);
    }
    expect(pours.filter(({ day }) => day < dayAfter(TODAY, 7)).length).to.be.at.most(1);
  });

  it('say what would let them lose less, and what has to be ordered by when', () => {
    const bars = [bar('a', 9, 0), bar('b', 8, 0), bar('c', 7, 0)];
    const tight = sixWeeks(ask(bars, { room: 72, lots: { olive: [{ massG: 1200, until: null }] } }), solve);
    expect(tight.binds.map(({ what }) => what)).to.include('room');
    expect(tight.missed).to.be.below(tight.missedWithout);
    // Nothing is ready for six weeks: 24 bars a week, as quick and slow paces have it, and not one of them is saved.
    expect(tight.gone).to.be.closeTo(6 * 24 * (0.3 * 0.7 + 0.4 + 0.3 * 1.4), 1e-6);
    const free = sixWeeks(ask(bars), solve);
    expect(free.binds.map(({ what }) => what)).to.deep.equal(['evenings']);
    expect(free.order).to.deep.equal([]);
    const [order] = tight.order;
    expect([order!.material, order!.massG]).to.deep.equal(['olive', 1200 * (tight.pours.length - 1)]);
    expect(order!.by).to.equal([...tight.pours].sort((x, y) => x.day.localeCompare(y.day))[1]!.day);
  });

  it('take no lot after its day, take first what goes off first, and say what no pour takes', () => {
    // On Tuesdays; an order is never here. Of 3,600 g the half goes off after the second of them.
    const slots = slotsOf(ask([]));
    const bars = [bar('a', 9, 0)];
    const lots = {
      olive: [
        { massG: 1800, until: null },
        { massG: 1800, until: slots[1]! },
      ],
    };
    const plan = sixWeeks(ask(bars, { lots, orderDays: 99 }), solve);
    expect(plan.pours.length).to.equal(3);
    expect(plan.pours.filter(({ day }) => day > slots[1]!).length).to.be.at.most(1);
    const early = drawn(
      { bars, lots },
      [slots[0]!, slots[1]!].map((day) => ({ product: 'a', day })),
      '2027-01-05',
    );
    expect(early).to.deep.equal({ order: [], unused: [] });
    const late = drawn(
      { bars, lots },
      [slots[3]!, slots[2]!].map((day) => ({ product: 'a', day })),
      '2027-01-05',
    );
    expect(late.order).to.deep.equal([{ material: 'olive', massG: 600, by: slots[3]! }]);
    expect(late.unused).to.deep.equal([{ material: 'olive', massG: 1800, until: slots[1]! }]);
  });

  it('can be poured from the lots that are there, whatever their days', () => {
    const random = seededRandom(11);
    for (let round = 0; round < 8; round++) {
      const lot = () => ({
        massG: Math.round(3000 * random.uniform()),
        until: random.uniform() < 0.3 ? null : dayAfter(TODAY, Math.round(45 * random.uniform())),
      });
      const one = ask([bar('a', 9, 0), bar('b', 6, 4, { massG: { olive: 500, shea: 400 } })], {
        ...{ lots: { olive: [lot(), lot(), lot()], shea: [lot(), lot()] }, orderDays: 99, evenings: [2, 5] },
      });
      const { pours, order } = sixWeeks(one, solve);
      expect(order, JSON.stringify([one.lots, pours])).to.deep.equal([]);
    }
  });

  it('look at the bars that miss most where there are very many, and say how many they leave', () => {
    const many = Array.from({ length: 45 }, (_, at) => bar(`b${at}`, 1 + at / 10, 0));
    const full = ask([...many, bar('full', 1, 200)], { evenings: [] });
    expect(sixWeeks(full, solve).leftOut).to.equal(5);
    let asked = 0;
    const looked = bestPours({ ...full, evenings: [2] }, (problem) => {
      asked = problem.yesNo!.length;
      return { status: 'optimal', values: problem.cost.map(() => 1), objective: 0, isCutShort: true };
    });
    expect([asked, looked.isBest]).to.deep.equal([40 * 6, false]);
    const least = many.slice(0, 5).map(({ id }) => id);
    expect(looked.pours.filter(({ product }) => [...least, 'full'].includes(product))).to.deep.equal([]);
  });

  it('pour nothing where nothing would be lost, where no evening is free and where there is no bar', () => {
    expect(sixWeeks(ask([bar('a', 1, 200)]), solve).pours).to.deep.equal([]);
    expect(sixWeeks(ask([bar('a', 9, 0)], { evenings: [] }), solve).pours).to.deep.equal([]);
    expect(sixWeeks(ask([]), solve).pours).to.deep.equal([]);
    expect(sixWeeks(ask([bar('new', 1, 0, { perWeek: null })]), solve).pours).to.deep.equal([]);
  });
});
