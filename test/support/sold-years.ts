/** Years of sales of a small range, simulated: demand that swings with the season and the market day, evenings to pour on. */
import { seededRandom, type Random } from '../../src/core/numerics/random';
import type { Solve } from '../../src/core/numerics/highs';
import { dayAfter, weekdayOf } from '../../src/core/quantities/day';
import { bestPours } from '../../src/core/stock/six-weeks';
import { FRESH_DAYS, LEAST_VALUE, worthOf } from '../../src/core/stock/tonight';

const BARS = 8;
const POUR_BARS = 24;
const CURE_DAYS = 42;
const FIRST_DAY = '2026-01-01';
/** Before a year counts, the range runs in. */
const RUN_IN_DAYS = 182;
const YEAR_DAYS = 365;
/** Evenings of a week on which there is time to pour. */
const EVENINGS: readonly number[] = [1, 4];
const MARKET_DAY = 6;

/** Which bar is poured this evening; -1 for none. */
type Policy = (bars: readonly Shelf[], day: number, turn: number) => number;

interface Shelf {
  rate: number;
  /** Bars by the day they were ready, oldest first. */
  stock: { day: number; bars: number }[];
  coming: { day: number; bars: number }[];
  /** Bars sold, by day. */
  sold: number[];
}

export interface SoldYear {
  /** Share of what was asked for that was not there. */
  lost: number;
  /** Share of days on which a bar was out of stock. */
  outOfStock: number;
  /** Bars that were too old to sell. */
  stale: number;
  pours: number;
}

const sum = (all: readonly { bars: number }[]) => all.reduce((total, { bars }) => total + bars, 0);

function poisson(mean: number, random: Random): number {
  let [count, product] = [-1, 1];
  do {
    count++;
    product *= random.uniform();
  } while (product > Math.exp(-mean));
  return count;
}

/** What a maker can know of a pace: what was sold of it in half a year, and how few sales that rests on. */
function paceOf({ sold }: Shelf) {
  const seen = sold.slice(-RUN_IN_DAYS);
  const count = seen.reduce((total, bars) => total + bars, 0);
  const likely = (count + 1) / (seen.length / 7 + 0.25);
  const spread = 1 + 1.28 / Math.sqrt(count + 1);
  return { low: likely / spread, likely, high: likely * spread };
}

/** By what a pour is worth, as the application says it. */
export const byWorth: Policy = (bars, day) => {
  const values = bars.map((bar) => {
    const coming = bar.coming.map(({ bars: count, day: on }) => ({
      bars: count,
      readyOn: dayAfter(FIRST_DAY, on),
    }));
    const candidate = { perWeek: paceOf(bar), ready: sum(bar.stock), coming, wanted: [], bars: POUR_BARS };
    return worthOf(candidate, { today: dayAfter(FIRST_DAY, day), cureDays: CURE_DAYS }).value;
  });
  const best = Math.max(...values);
  return best > LEAST_VALUE ? values.indexOf(best) : -1;
};

/** Plans within so much of the best are taken: hundreds of them are made. */
const PLAN_GAP = 0.05;

/** By a plan of six weeks, made anew every week. */
export const bySixWeeks = (solve: Solve): Policy => {
  let plan: readonly { product: string; day: string }[] = [];
  return (bars, day) => {
    const today = dayAfter(FIRST_DAY, day);
    // The evenings of the simulation count its own days of the week, from its first day on.
    const weekday = (of: number) => weekdayOf(dayAfter(FIRST_DAY, of));
    if (day % 7 === EVENINGS[0])
      plan = bestPours(
        {
          today,
          cureDays: CURE_DAYS,
          evenings: EVENINGS.map(weekday),
          room: null,
          lots: {},
          orderDays: 0,
          bars: bars.map((bar, at) => ({
            ...{ id: String(at), perWeek: paceOf(bar), ready: sum(bar.stock), wanted: [] },
            ...{ bars: POUR_BARS, massG: {} },
            coming: bar.coming.map(({ bars: count, day: on }) => ({
              bars: count,
              readyOn: dayAfter(FIRST_DAY, on),
            })),
          })),
        },
        solve,
        PLAN_GAP,
      ).pours;
    const tonight = plan.find((pour) => pour.day === today);
    return tonight ? Number(tonight.product) : -1;
  };
};

/** When a bar is nearly gone, so many weeks on the shelf and none curing: the emptiest first. */
export const whenNearlyGone =
  (weeks: number): Policy =>
  (bars) => {
    const left = bars.map((bar) => (bar.coming.length > 0 ? Infinity : sum(bar.stock) / paceOf(bar).likely));
    const least = Math.min(...left);
    return least < weeks ? left.indexOf(least) : -1;
  };

/** The same every week, by turns. */
export const byTurns: Policy = (bars, _, turn) => turn % bars.length;

function sell(bar: Shelf, wanted: number): number {
  let left = wanted;
  while (left > 0 && bar.stock.length > 0) {
    const taken = Math.min(left, bar.stock[0]!.bars);
    bar.stock[0]!.bars -= taken;
    left -= taken;
    if (bar.stock[0]!.bars === 0) bar.stock.shift();
  }
  return left;
}

function arrive(bar: Shelf, day: number): void {
  for (const pour of bar.coming.filter((one) => one.day <= day)) bar.stock.push({ ...pour, day });
  bar.coming = bar.coming.filter((one) => one.day > day);
}

function throwOut(bar: Shelf, day: number): number {
  const old = bar.stock.filter((one) => day - one.day > FRESH_DAYS);
  bar.stock = bar.stock.filter((one) => day - one.day <= FRESH_DAYS);
  return sum(old);
}

/** One year of a range under a policy; the same seed brings the same demand whatever is poured. */
export function soldYear(seed: number, policy: Policy): SoldYear {
  const random = seededRandom(seed);
  const bars = Array.from({ length: BARS }, (): Shelf => {
    const rate = Math.exp(Math.log(4) + 0.8 * random.normal());
    return { rate, stock: [{ day: 0, bars: Math.round(7 * rate) }], coming: [], sold: [] };
  });
  let [asked, lost, out, stale, pours, turn] = [0, 0, 0, 0, 0, 0];
  for (let day = 0; day < RUN_IN_DAYS + YEAR_DAYS; day++) {
    const counts = Number(day >= RUN_IN_DAYS);
    const season = 1 + 0.35 * Math.sin((2 * Math.PI * (day + 200)) / YEAR_DAYS);
    for (const bar of bars) {
      arrive(bar, day);
      const wanted = poisson(bar.rate * season * (day % 7 === MARKET_DAY ? 0.6 : 0.4 / 6), random);
      const missed = sell(bar, wanted);
      bar.sold.push(wanted - missed);
      asked += counts * wanted;
      lost += counts * missed;
      out += counts * Number(bar.stock.length === 0);
      stale += counts * throwOut(bar, day);
    }
    if (!EVENINGS.includes(day % 7)) continue;
    const chosen = policy(bars, day, turn++);
    if (chosen < 0) continue;
    bars[chosen]!.coming.push({ day: day + CURE_DAYS, bars: POUR_BARS });
    pours += counts;
  }
  return { lost: lost / asked, outOfStock: out / (YEAR_DAYS * BARS), stale, pours };
}

/** The mean of so many years, each under a policy of its own. */
export function soldYears(years: number, policy: () => Policy): SoldYear {
  const all = Array.from({ length: years }, (_, seed) => soldYear(seed + 1, policy()));
  const mean = (of: keyof SoldYear) => all.reduce((total, year) => total + year[of], 0) / years;
  return {
    lost: mean('lost'),
    outOfStock: mean('outOfStock'),
    stale: mean('stale'),
    pours: mean('pours'),
  };
}
