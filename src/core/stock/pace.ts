/**
 * How fast a bar goes, and when to pour it again. Sales come by the day and unevenly: markets, orders. The pace is a
 * rate with its uncertainty (a gamma posterior of a rate of events, spread by how unlike the events are).
 */
import { dayAfter, daysBetween } from '../quantities/day';
import { quantile, seededRandom, type Random } from '../numerics/random';
import type { Interval } from '../curing/cure-types';

/** Days from the pour until bars can be sold: cut, cure and a look (craft). */
export const USUAL_SALE_DAYS = 42;

export interface SoldOn {
  /** YYYY-MM-DD. */
  day: string;
  bars: number;
}

export interface Pace {
  /** Bars a week, with an 80 % interval; null before anything was sold. */
  perWeek: Interval | null;
  /** Weeks that were looked at. */
  weeks: number;
  sold: number;
}

/** Weeks looked back at most: what sold before that says little of now. */
export const MOST_WEEKS = 26;
const DRAWS = 2000;
const DAYS_A_WEEK = 7;

/** A gamma number of shape one half or more, by Marsaglia and Tsang. */
function gamma(shape: number, { uniform, normal }: Random): number {
  if (shape < 1) return gamma(shape + 1, { uniform, normal }) * uniform() ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal();
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(uniform()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

/** Days on which something went, with how much: bars of one day are one event. */
function eventsOf(sold: readonly SoldOn[]): number[] {
  const byDay = new Map<string, number>();
  for (const { day, bars } of sold) byDay.set(day, (byDay.get(day) ?? 0) + bars);
  return [...byDay.values()];
}

/** What sold over the days that are looked back at. */
function lookedBack(sold: readonly SoldOn[], since: string, today: string) {
  const days = Math.min(MOST_WEEKS * DAYS_A_WEEK, Math.max(1, daysBetween(since, today)));
  const from = dayAfter(today, -days);
  const events = eventsOf(sold.filter(({ day }) => day >= from && day <= today));
  const bars = events.reduce((sum, size) => sum + size, 0);
  return { events, bars, weeks: days / DAYS_A_WEEK, days };
}

/** A Poisson number of a mean, by waiting times. */
function poisson(mean: number, { uniform }: Random): number {
  let count = 0;
  for (let gone = -Math.log(1 - uniform()); gone < mean; gone -= Math.log(1 - uniform())) count++;
  return count;
}

/**
 * Bars that sell over the next days at the pace so far, with an 80 % interval: what is unsure of the pace, and that sales
 * come by chance. Null before anything was sold.
 *
 * @example
 * salesAhead([{ day: '2026-11-01', bars: 6 }], '2026-10-20', '2026-11-24', 28); // { low: 0, likely: 5, high: 18 }
 */
export function salesAhead(
  sold: readonly SoldOn[],
  since: string,
  today: string,
  ahead: number,
): Interval | null {
  const { events, bars, weeks, days } = lookedBack(sold, since, today);
  if (bars === 0) return null;
  const random = seededRandom(bars * 1013 + days);
  const draws = Array.from({ length: DRAWS }, () => {
    const rate = gamma(events.length + 0.5, random) / weeks;
    let total = 0;
    for (let left = poisson((rate * ahead) / DAYS_A_WEEK, random); left > 0; left--)
      total += events[Math.floor(random.uniform() * events.length)]!;
    return total;
  }).sort((a, b) => a - b);
  return { low: quantile(draws, 0.1), likely: quantile(draws, 0.5), high: quantile(draws, 0.9) };
}

/**
 * The pace of a bar: from `since` (its first release) or the last half year, whichever is shorter, to `today`.
 *
 * @example
 * paceOf([{ day: '2026-11-01', bars: 6 }], '2026-10-20', '2026-11-24').perWeek; // { low: …, likely: 1.2, high: … }
 */
export function paceOf(sold: readonly SoldOn[], since: string, today: string): Pace {
  const { events, bars, weeks, days } = lookedBack(sold, since, today);
  if (bars === 0) return { perWeek: null, weeks, sold: 0 };
  const random = seededRandom(bars * 1009 + days);
  const draws = Array.from({ length: DRAWS }, () => {
    const rate = gamma(events.length + 0.5, random) / weeks;
    // How large the next events are: drawn from those there were, as many of them.
    let mean = 0;
    for (let at = 0; at < events.length; at++) mean += events[Math.floor(random.uniform() * events.length)]!;
    return (rate * mean) / events.length;
  }).sort((a, b) => a - b);
  return {
    perWeek: { low: quantile(draws, 0.1), likely: quantile(draws, 0.5), high: quantile(draws, 0.9) },
    weeks,
    sold: bars,
  };
}

export interface Supply {
  /** Bars ready and not gone. */
  ready: number;
  /** Bars that cure, with the day they are likely ready. */
  curing: { batch: string; bars: number; readyOn: string }[];
}

export interface Need {
  name: string;
  day: string;
  bars: number;
}

export interface NextPour {
  /** The day the stock is likely at an end, at the likely pace; null where nothing sells. */
  endsOn: string | null;
  /** The same at the fast end of the pace. */
  endsEarlyOn: string | null;
  /** The day by which to pour so that there is no gap; null where nothing calls for it. */
  startBy: string | null;
  /** What calls for it, in words. */
  why: string | null;
}

const YEARS_AHEAD_DAYS = 730;
/** What sums of parts of a bar leave. */
const NOTHING = 1e-9;

/** The day on which so many bars a week have emptied what is ready and what comes ready. */
function endOf(
  perWeek: number,
  today: string,
  { ready, curing }: Supply,
  needs: readonly Need[],
): string | null {
  if (perWeek <= 0 && needs.length === 0) return null;
  // What comes and goes, by days from today; what should be ready by now counts today.
  const change = new Map<number, number>();
  const add = (day: number, bars: number) => change.set(day, (change.get(day) ?? 0) + bars);
  for (const { readyOn, bars } of curing) add(Math.max(0, daysBetween(today, readyOn)), bars);
  for (const need of needs) add(daysBetween(today, need.day), -need.bars);
  let stock = ready;
  for (let day = 0; day < YEARS_AHEAD_DAYS; day++) {
    stock += change.get(day) ?? 0;
    if (day > 0) stock -= perWeek / DAYS_A_WEEK;
    if (stock < -NOTHING) return dayAfter(today, day);
  }
  return null;
}

/** When a bar has to be poured again: `cureDays` before it would run out, at the likely pace and for what is wanted by a day. */
export function nextPour(
  pace: Pace,
  supply: Supply,
  needs: readonly Need[],
  today: string,
  cureDays: number,
): NextPour {
  const open = needs.filter(({ day }) => day >= today);
  const likely = endOf(pace.perWeek?.likely ?? 0, today, supply, open);
  const early = endOf(pace.perWeek?.high ?? 0, today, supply, open);
  const need = open.find(({ day }) => day === likely);
  return {
    endsOn: likely,
    endsEarlyOn: early,
    startBy: likely && dayAfter(likely, -cureDays),
    why:
      likely === null
        ? null
        : need
          ? `${need.bars} wanted for ${need.name}`
          : 'it would run out at this pace',
  };
}
