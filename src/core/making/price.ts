/**
 * What is left of a price: taxes and fees by where a bar is sold, what a bar costs with its doubt, and so what is left a
 * bar and an hour. Amounts in the house's currency. Pure.
 */
import type { Interval } from '../curing/cure-types';
import type { Cost } from './cost';

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
  /** Hours from the first weighing to the pour, as the bench measured them; null where it never did. */
  hours: Interval | null;
}

/** How far prices of materials may be off by the time they are bought again, relative. */
const PRICE_DOUBT = 0.1;

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
  const { pricing, cost, bars } = input;
  const soldBars = bars * (1 - pricing.unsoldPct / 100);
  if (!(soldBars > 0)) return null;
  const each = (materials: number) => (materials + pricing.energyBatch + bars * pricing.packEach) / soldBars;
  const costEach = {
    low: each(cost.total * (1 - PRICE_DOUBT)),
    likely: each(cost.total),
    high: each(cost.total * (1 + PRICE_DOUBT)),
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

/** What a dearer material, one bar more of a block and fewer bars left over would do. */
export function whatIfs(input: PricedInput, dearest: { name: string; cost: number } | null): WhatIf[] {
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
    ['One bar more from a batch', { ...input, bars: bars + 1 }],
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
