/**
 * What was foretold, held against what came: how often a range held, by how much it missed, and by how much it would have
 * to be wider to hold as often as it says.
 */
import type { Interval } from '../curing/cure-types';

export const FORETOLD = ['weight', 'ready', 'cut', 'heat', 'pace', 'cost'] as const;
/**
 * Weight of the bars at the end of the cure, day they are ready, hour of the cut, warmth of the block, bars sold in four weeks,
 * cost of a bar in materials.
 */
export type ForetoldKind = (typeof FORETOLD)[number];

/** One thing that was foretold, and what came of it. */
export interface Foretold extends Interval {
  kind: ForetoldKind;
  /** The bar it is of, as a product. */
  product: string;
  /** What it is of, in words: a batch's code with its bar, or the day looked from. */
  of: string;
  /** The day it was foretold on, YYYY-MM-DD. */
  on: string;
  came: number;
}

/** How often ranges say that they hold, 0 to 1. */
export const SAID = 0.8;
/** Fewer say nothing of a range. */
export const ENOUGH = 10;
/** A range is widened where it held so much less often than it says that chance alone hardly does it. */
const CHANCE_SD = 1.3;
/** Wider than this no range is made: the model is wrong then, and is said to be. */
export const MOST_WIDER = 4;

export interface Held {
  kind: ForetoldKind;
  /** How many were foretold, and how many of them came within their range. */
  of: number;
  within: number;
  /** Came below and above the range. */
  below: number;
  above: number;
  /** Half of them came nearer to what was likely than this, in the kind's own unit. */
  typicalMiss: number;
  /** What came less what was likely, in the middle of all: above nothing, it is foretold too low. */
  leans: number;
  /** How often it held in the earlier and in the later half, 0 to 1; null where there are too few. */
  drift: { earlier: number; later: number } | null;
  /** How many times as wide it has to be to hold as often as it says; 1 where it does, or too few tell. */
  wider: number;
}

const isWithin = ({ low, high, came }: Foretold) => came >= low && came <= high;

/** How far out something came, in parts of its range's own half on that side: 1 is at the edge. */
export function farOut({ low, likely, high, came }: Foretold): number {
  const half = came >= likely ? high - likely : likely - low;
  const miss = Math.abs(came - likely);
  return half > 0 ? miss / half : miss === 0 ? 0 : Infinity;
}

const at = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(sorted.length * share) - 1)] ?? 0;
};
const shareWithin = (all: readonly Foretold[]) => all.filter(isWithin).length / all.length;

/** By how much ranges have to be wider: none while what came too often outside may be chance. */
function widerOf(all: readonly Foretold[]): number {
  if (all.length < ENOUGH) return 1;
  const doubt = Math.sqrt((SAID * (1 - SAID)) / all.length);
  if (shareWithin(all) >= SAID - CHANCE_SD * doubt) return 1;
  return Math.min(MOST_WIDER, Math.max(1, at(all.map(farOut), SAID)));
}

function driftOf(all: readonly Foretold[]): Held['drift'] {
  if (all.length < 2 * ENOUGH) return null;
  const sorted = [...all].sort((a, b) => a.on.localeCompare(b.on));
  const half = Math.floor(sorted.length / 2);
  return { earlier: shareWithin(sorted.slice(0, half)), later: shareWithin(sorted.slice(half)) };
}

/** How a kind of foretelling held; null where nothing was foretold. */
function heldOf(kind: ForetoldKind, all: readonly Foretold[]): Held | null {
  if (all.length === 0) return null;
  return {
    kind,
    of: all.length,
    within: all.filter(isWithin).length,
    below: all.filter(({ came, low }) => came < low).length,
    above: all.filter(({ came, high }) => came > high).length,
    typicalMiss: at(
      all.map(({ came, likely }) => Math.abs(came - likely)),
      0.5,
    ),
    leans: at(
      all.map(({ came, likely }) => came - likely),
      0.5,
    ),
    drift: driftOf(all),
    // A window for the cut is no range of what will be: it is when to come.
    wider: kind === 'cut' ? 1 : widerOf(all),
  };
}

/**
 * How each kind held, in the order of the kinds.
 *
 * @example
 * heldByKind(all)[0]; // { kind: 'weight', of: 42, within: 35, below: 2, above: 5, wider: 1, … }
 */
export const heldByKind = (all: readonly Foretold[]): Held[] =>
  FORETOLD.flatMap(
    (kind) =>
      heldOf(
        kind,
        all.filter((one) => one.kind === kind),
      ) ?? [],
  );

/** A range so many times as wide on either side of what is likely, never below nothing. */
export const widened = ({ low, likely, high }: Interval, times: number): Interval => ({
  low: Math.max(0, likely - times * (likely - low)),
  likely,
  high: likely + times * (high - likely),
});
