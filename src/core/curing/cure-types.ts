/** What the cure is reckoned from and what is told of it (cure page). Masses in grams, days since the pour. */

export interface CureWeighing {
  bar: string;
  /** Days since the pour; fractions allowed. */
  day: number;
  massG: number;
}

export interface CureOptions {
  /** Smallest step of the scale's display, grams; 1 where it is not known. */
  readabilityG?: number;
  /** Days a bar cures at least; 28 where it is not said. */
  minDays?: number;
  /** Mass of the whole pour that became bars, grams. */
  pouredG?: number | null;
  /** How many bars it became. */
  bars?: number | null;
  /** Places of weighings that the maker left out. */
  leaveOut?: readonly number[];
  /** Places of weighings that the maker says are right. */
  confirmed?: readonly number[];
}

/** Ends and middle of an 80 % interval. */
export interface Interval {
  low: number;
  likely: number;
  high: number;
}

export interface CuredBar {
  bar: string;
  firstG: number;
  lastG: number;
  /** Since its first weighing, percent. */
  lossPct: number;
  /** What it will weigh in the end; null before there is a curve. */
  settledG: Interval | null;
}

/** A weighing that fits no cure; left out only when the maker says so. */
export interface CureDoubt {
  /** Its place among the weighings. */
  weighing: number;
  bar: string;
  day: number;
  code: 'rises' | 'swapped' | 'ounces';
  message: string;
}

export interface CurePoint {
  day: number;
  lowG: number;
  likelyG: number;
  highG: number;
}

export interface Cure {
  bars: CuredBar[];
  /** Percent of its mass a bar loses a day now, at the last weighing; null before there is a curve. */
  lossPerDayPct: Interval | null;
  settled: boolean;
  /** For all bars together: those there are, or those weighed where their number is not known. */
  settledG: Interval | null;
  /** Days since the pour. */
  readyOnDay: Interval | null;
  /** Settled mass over poured mass. */
  massRatio: { low: number; typical: number; high: number } | null;
  /** Whether too few weighings stand behind the intervals for them to be narrow. */
  isWide: boolean;
  /** What weighing is still wanted, in words. */
  needs: string[];
  doubts: CureDoubt[];
  /** A mean bar over the days, with its 80 % band; empty before there is a curve. */
  curve: CurePoint[];
}
