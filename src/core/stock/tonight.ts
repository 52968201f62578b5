/**
 * Which bar to pour tonight: how many sales each pour would save, over what is not known of its pace, against what would
 * lie too long. Pure.
 */
import type { Interval } from '../curing/cure-types';
import type { Verdict } from '../formula/answer';
import { daysBetween } from '../quantities/day';

const DAYS_A_WEEK = 7;
/**
 * A bar that is not poured tonight may wait so long for its turn: what would be lost meanwhile is what a pour of tonight
 * saves, days.
 */
export const TURN_DAYS = 21;
/** A bar sells best for so long after its cure; what is left then counts as too old, days. */
export const FRESH_DAYS = 182;
/** A bar that gets too old weighs so much of one that could have been sold. */
export const STALE_WEIGHT = 0.5;

/** Shares of what may be true of a pace that stand for all of it. */
const SHARES = [0.1, 0.3, 0.5, 0.7, 0.9] as const;

export interface Candidate {
  /** Bars a week, with an 80 % interval; null before anything was sold. */
  perWeek: Interval | null;
  ready: number;
  /** Bars on their way, with the day each is ready; those planned among them. */
  coming: readonly { bars: number; readyOn: string }[];
  /** What has to be there by a day. */
  wanted: readonly { bars: number; day: string }[];
  /** Bars that a pour makes. */
  bars: number;
}

/** What a pour of tonight is worth. */
export interface Worth {
  /** Sales that it saves, bars: what would be lost until its next turn. */
  saved: number;
  /** Bars of it that would lie too long. */
  stale: number;
  /** `saved` less what lies too long, weighted. */
  value: number;
}

/** Bars a week at each of some shares: between the ends of the interval as its logarithm runs straight. */
export function pacesOf({ low, likely, high }: Interval, shares: readonly number[]): number[] {
  const least = Math.max(low, 1e-6);
  return shares.map((share) => {
    if (share <= 0.5) return least * (Math.max(likely, least) / least) ** ((share - 0.1) / 0.4);
    return (
      Math.max(likely, least) * (Math.max(high, least) / Math.max(likely, least)) ** ((share - 0.5) / 0.4)
    );
  });
}

/** What is lost and what is left, day by day, at a pace and without the pour. */
function run(one: Candidate, perWeek: number, today: string, from: number, until: number, more: number) {
  const change = new Map<number, number>();
  const add = (day: number, bars: number) => change.set(day, (change.get(day) ?? 0) + bars);
  for (const { bars, readyOn } of one.coming) add(Math.max(0, daysBetween(today, readyOn)), bars);
  for (const { bars, day } of one.wanted) add(daysBetween(today, day), -bars);
  if (more > 0) add(from, more);
  let stock = one.ready;
  let lost = 0;
  for (let day = 0; day <= until; day++) {
    stock += (change.get(day) ?? 0) - perWeek / DAYS_A_WEEK;
    if (stock >= 0) continue;
    if (day >= from) lost -= stock;
    stock = 0;
  }
  return { lost, left: stock };
}

/**
 * What a pour of tonight is worth: sales saved from the day it is ready until the bar's next turn, less what of it would
 * lie longer than bars sell well. What is saved hangs on the pace, so that five of it are tried.
 *
 * @example
 * worthOf(candidate, { today: '2026-11-24', cureDays: 42 }).saved; // 6.3
 */
export function worthOf(one: Candidate, { today, cureDays }: { today: string; cureDays: number }): Worth {
  const paces = one.perWeek ? pacesOf(one.perWeek, SHARES) : [0];
  let [saved, stale] = [0, 0];
  for (const perWeek of paces) {
    const turn = cureDays + TURN_DAYS;
    const lost = (more: number) => run(one, perWeek, today, cureDays, turn, more).lost;
    saved += (lost(0) - lost(one.bars)) / paces.length;
    const end = cureDays + FRESH_DAYS;
    const left = (more: number) => run(one, perWeek, today, cureDays, end, more).left;
    stale += Math.min(one.bars, Math.max(0, left(one.bars))) / paces.length;
  }
  return { saved, stale, value: saved - STALE_WEIGHT * stale };
}

/** A bar as it may be poured tonight. */
export interface TonightBar {
  id: string;
  worth: Worth | null;
  verdict: Verdict | null;
  /** What is missing for one pour. */
  missing: readonly unknown[];
}

/** Sales that a pour has to save at least before it is worth an evening, bars. */
export const LEAST_VALUE = 0.3;
/** Told beside the best. */
const MOST_TOLD = 3;

/** What is over a limit or without its papers is not offered. */
export const isOffered = ({ verdict }: Pick<TonightBar, 'verdict'>) =>
  verdict !== null && verdict !== 'over' && verdict !== 'unproven';

/**
 * The bars to pour tonight, the one worth most first, of those all is there for; and one that would be worth more were
 * what is missing bought.
 *
 * @example
 * tonight(bars).best.map(({ id }) => id); // ['ticket-office', 'level-crossing']
 */
export function tonight<B extends TonightBar>(bars: readonly B[]): { best: B[]; better: B | null } {
  const valueOf = ({ worth }: B) => worth?.value ?? 0;
  const worthy = bars
    .filter((bar) => isOffered(bar) && valueOf(bar) > 0)
    .sort((a, b) => valueOf(b) - valueOf(a));
  const best = worthy.filter(({ missing }) => missing.length === 0).slice(0, MOST_TOLD);
  const [first] = worthy;
  // What would save next to nothing is worth no evening, nor an order.
  if (!first || valueOf(first) <= LEAST_VALUE) return { best: [], better: null };
  return { best, better: first === best[0] ? null : first };
}
