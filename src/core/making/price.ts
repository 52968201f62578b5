/**
 * What is left of a price: taxes and fees by where a bar is sold, what a bar costs with its doubt, and so what is left a
 * bar and an hour. Amounts in the house's currency. Pure.
 */
import type { Interval } from '../curing/cure-types';
import type { AssessedLimit } from '../formula/answer';
import type { Cost, CostLine } from './cost';

/** A place where bars are sold. */
export interface Channel {
  id: string;
  name: string;
  /** Of the price, percent; and on each bar. */
  feePct: number;
  feeEach: number;
  /** Tax on the sale, percent; in the price where it is, else put on top of it by the till. */
  taxPct: number;
  isTaxIn: boolean;
}

/** What counts for every bar of the house. */
export interface Pricing {
  /** Label, wrap and box of one bar. */
  packEach: number;
  /** Energy and the like of one batch. */
  energyBatch: number;
  /** The same of a batch that is cooked; left out or null where it is as of any. */
  energyHot?: number | null;
  /** Hours of a batch beside its pour: cutting, turning, wrapping. */
  otherHours: number;
  /** Bars of a batch that are not sold: seconds, samples, for one's own use, percent. */
  unsoldPct: number;
  channels: Channel[];
  /** Prices of a bar, by its id. */
  prices: Record<string, number>;
}

export const NO_PRICING: Pricing = {
  packEach: 0,
  energyBatch: 0,
  otherHours: 0,
  unsoldPct: 0,
  channels: [],
  prices: {},
};

export interface PricedInput {
  price: number;
  pricing: Pricing;
  /** Materials of a batch, as `costOf` gives them. */
  cost: Pick<Cost, 'total' | 'unpriced'>;
  /** Bars that a batch makes. */
  bars: number;
  /** Whether its batches are cooked. */
  isHot?: boolean;
  /** Hours from the first weighing to the pour, as the bench measured them; null where it never did. */
  hours: Interval | null;
  /** How far the cost may be off, relative; `PRICE_DOUBT` where left out. */
  doubt?: number;
}

/** How far prices of materials may be off by the time they are bought again, relative; more where the house's own batches show it. */
export const PRICE_DOUBT = 0.1;

export interface ChannelLeft {
  channel: Channel;
  /** What the buyer pays, of that the tax and the fees. */
  paid: number;
  tax: number;
  fees: number;
  /** Of one sold bar, once everything is paid. */
  left: Interval;
  /** Of one hour; null where no hours are known. */
  perHour: Interval | null;
  /** Left is likely less than nothing. */
  isBelowCost: boolean;
}

export interface Priced {
  /** Of one sold bar: materials, packing, energy, with what is not sold shared out. */
  cost: Interval;
  /** Hours of a batch in all; null where nothing is known of them. */
  hours: Interval | null;
  soldBars: number;
  channels: ChannelLeft[];
}

const scaled = ({ low, likely, high }: Interval, by: (one: number) => number): Interval => ({
  low: by(low),
  likely: by(likely),
  high: by(high),
});

function hoursOf({ hours, pricing: { otherHours } }: PricedInput): Interval | null {
  if (hours) return scaled(hours, (one) => one + otherHours);
  return otherHours > 0 ? { low: otherHours, likely: otherHours, high: otherHours } : null;
}

function leftIn(channel: Channel, input: PricedInput, cost: Interval, soldBars: number): ChannelLeft {
  const { price } = input;
  const share = channel.taxPct / 100;
  const paid = channel.isTaxIn ? price : price * (1 + share);
  const tax = channel.isTaxIn ? price - price / (1 + share) : price * share;
  const fees = (paid * channel.feePct) / 100 + channel.feeEach;
  const of = (one: number) => paid - tax - fees - one;
  const left = { low: of(cost.high), likely: of(cost.likely), high: of(cost.low) };
  const hours = hoursOf(input);
  const perHour = hours && {
    low: (left.low * soldBars) / (left.low < 0 ? hours.low : hours.high),
    likely: (left.likely * soldBars) / hours.likely,
    high: (left.high * soldBars) / (left.high < 0 ? hours.high : hours.low),
  };
  return { channel, paid, tax, fees, left, perHour, isBelowCost: left.likely < 0 };
}

/**
 * A price held against what a bar costs; null where a batch makes no bar that is sold. Where a material has no price on
 * file nothing bounds the cost above: that is told beside it by `cost.unpriced`.
 *
 * @example
 * priced({ price: 7.5, pricing, cost, bars: 24, hours: null })?.channels[0].left.likely; // 3.12
 */
export function priced(input: PricedInput): Priced | null {
  const { pricing, cost, bars, isHot = false, doubt = PRICE_DOUBT } = input;
  const energy = isHot ? (pricing.energyHot ?? pricing.energyBatch) : pricing.energyBatch;
  const soldBars = bars * (1 - pricing.unsoldPct / 100);
  if (!(soldBars > 0)) return null;
  const each = (materials: number) => (materials + energy + bars * pricing.packEach) / soldBars;
  const costEach = {
    low: each(cost.total * Math.max(0, 1 - doubt)),
    likely: each(cost.total),
    high: each(cost.total * (1 + doubt)),
  };
  return {
    cost: costEach,
    hours: hoursOf(input),
    soldBars,
    channels: pricing.channels.map((channel) => leftIn(channel, input, costEach, soldBars)),
  };
}

/** One thing otherwise, and what is then left of a bar in each place. */
export interface WhatIf {
  says: string;
  left: { channel: string; likely: number }[];
}

/** How much dearer the dearest material is tried. */
const DEARER = 0.2;

/** A load that a limit half as high would leave less of: how much less, and what that saves of a batch. */
export interface Tighter {
  lines: string[];
  /** Of what is in it now, percent less. */
  lessPct: number;
  saved: number;
}

/**
 * What half the limit that is closest would take away: its loads, as much less as it then asks for, and what that saves.
 * Null where nothing binds, or where half of it would still be more than is in.
 *
 * @example
 * halvedLimit(assessment.limits, cost.lines)?.lessPct; // 41.7: of the scent
 */
export function halvedLimit(
  limits: readonly Pick<AssessedLimit, 'force' | 'headroomPct' | 'maxPct' | 'highPct' | 'contributors'>[],
  lines: readonly CostLine[],
): Tighter | null {
  const binding = limits.filter(({ force, headroomPct }) => force !== 'craft' && headroomPct !== null);
  const closest = binding.reduce<(typeof binding)[number] | null>(
    (least, limit) => (least === null || limit.headroomPct! < least.headroomPct! ? limit : least),
    null,
  );
  if (!closest || closest.highPct <= closest.maxPct / 2) return null;
  const less = 1 - closest.maxPct / 2 / closest.highPct;
  const ids = closest.contributors.map(({ line }) => line);
  const saved = lines.reduce(
    (sum, { line, cost }) => sum + (line !== null && ids.includes(line) ? less * (cost ?? 0) : 0),
    0,
  );
  return { lines: ids, lessPct: 100 * less, saved };
}

/** What a dearer material, half a limit, one bar more (said as `more`; null where none can be) and fewer bars left over would do. */
export function whatIfs(
  input: PricedInput,
  dearest: { name: string; cost: number } | null,
  tighter: { says: string; saved: number } | null = null,
  more: string | null = 'One bar more from a batch',
): WhatIf[] {
  const { cost, bars, pricing } = input;
  const tried: [string, PricedInput][] = [
    ...(dearest
      ? [
          [
            `${dearest.name} a fifth dearer`,
            { ...input, cost: { ...cost, total: cost.total + DEARER * dearest.cost } },
          ] satisfies [string, PricedInput],
        ]
      : []),
    ...(tighter
      ? [
          [
            tighter.says,
            { ...input, cost: { ...cost, total: Math.max(0, cost.total - tighter.saved) } },
          ] satisfies [string, PricedInput],
        ]
      : []),
    ...(more === null ? [] : [[more, { ...input, bars: bars + 1 }] satisfies [string, PricedInput]]),
    ...(pricing.unsoldPct > 0
      ? [
          ['Every bar sold', { ...input, pricing: { ...pricing, unsoldPct: 0 } }] satisfies [
            string,
            PricedInput,
          ],
        ]
      : []),
  ];
  return tried.flatMap(([says, one]) => {
    const found = priced(one);
    if (!found) return [];
    return [
      {
        says,
        left: found.channels.map(({ channel, left }) => ({ channel: channel.id, likely: left.likely })),
      },
    ];
  });
}
