/**
 * What would have been foretold at a time, from what was known then, beside what came: cures from their first weighings,
 * sales from those before a day, warmth from the formula and the mould. Pure.
 */
import { cure } from '../curing/cure';
import type { Cure, CureOptions, CureWeighing, Interval } from '../curing/cure-types';
import type { Reading } from '../heat/calibrate';
import { bandAtOnce } from '../heat/ensemble';
import type { Pour } from '../heat/types';
import { dayAfter, daysBetween } from '../quantities/day';
import { salesAhead, type SoldOn } from '../stock/pace';
import type { Foretold } from './held';

/** Weighings of one bar from which a cure foretells. */
const ENOUGH_WEIGHINGS = 3;
/** A cure is foretold from what was weighed in this share of the days over which it was weighed. */
const LOOKED_AT_SHARE = 0.55;

/** A batch whose cure has come to its end. */
export interface CuredBatch {
  product: string;
  /** Its code. */
  code: string;
  /** The day of its pour. */
  on: string;
  weighings: readonly CureWeighing[];
  options: CureOptions;
  /** The cure as all weighings tell it. */
  whole: Cure;
}

/** The weighings of a cure's first part, as soon as a bar has enough of them. */
function firstPart(weighings: readonly CureWeighing[]): CureWeighing[] | null {
  const last = Math.max(...weighings.map(({ day }) => day));
  const early = weighings.filter(({ day }) => day <= LOOKED_AT_SHARE * last);
  const times = new Map<string, number>();
  for (const { bar } of early) times.set(bar, (times.get(bar) ?? 0) + 1);
  return Math.max(0, ...times.values()) >= ENOUGH_WEIGHINGS ? early : null;
}

/** A range between two of those of rising places; null beyond the last. */
function between<T>(places: readonly number[], all: readonly T[], wanted: number, of: (one: T) => Interval) {
  const after = places.findIndex((place) => place >= wanted);
  if (after < 0) return null;
  const [a, b] = [Math.max(0, after - 1), after];
  const span = places[b]! - places[a]!;
  const share = span > 0 ? (wanted - places[a]!) / span : 0;
  const [from, to] = [of(all[a]!), of(all[b]!)];
  const mix = (key: keyof Interval) => from[key] + share * (to[key] - from[key]);
  return { low: mix('low'), likely: mix('likely'), high: mix('high') };
}

/** The mean of what some bars weighed the last time that all of them were weighed, and the day of it. */
function lastMean(weighings: readonly CureWeighing[], bars: readonly string[]) {
  const last = bars.map((bar) => weighings.filter((one) => one.bar === bar).at(-1)!);
  const day = Math.min(...last.map((one) => one.day));
  const isTogether = last.every((one) => one.day - day < 1);
  return isTogether ? { day, massG: last.reduce((sum, { massG }) => sum + massG, 0) / last.length } : null;
}

/**
 * What the bars of a batch weigh in the end and the day they are ready, foretold from the first part of its weighings: the
 * one against the last weighing, the other against what all of them say of a batch that settled. Nothing of a batch that
 * was weighed too seldom early on.
 */
export function foretoldCure({ product, code, on, weighings, options, whole }: CuredBatch): Foretold[] {
  const sorted = [...weighings].sort((a, b) => a.day - b.day);
  const early = sorted.length > 0 ? firstPart(sorted) : null;
  if (!early) return [];
  const { confirmed: _, ...plain } = options;
  const then = cure(early, plain);
  const told = { product, of: code, on: dayAfter(on, Math.ceil(early.at(-1)!.day)) };
  const bars = then.bars.map(({ bar }) => bar);
  const end = lastMean(sorted, bars);
  const range =
    end &&
    between(
      then.curve.map(({ day }) => day),
      then.curve,
      end.day,
      ({ lowG, likelyG, highG }) => ({ low: lowG, likely: likelyG, high: highG }),
    );
  return [
    ...(range ? [{ kind: 'weight' as const, ...told, ...range, came: end.massG }] : []),
    ...(whole.settled && then.readyOnDay && whole.readyOnDay
      ? [{ kind: 'ready' as const, ...told, ...then.readyOnDay, came: whole.readyOnDay.likely }]
      : []),
  ];
}

/** Days of one look ahead at what sells, and how many looks back. */
export const LOOK_DAYS = 28;
const MOST_LOOKS = 5;
/** A pace is looked at once a bar has sold for so long. */
const LEAST_DAYS = 28;

/** Bars sold in four weeks, foretold from what had sold before, for each four weeks back from today. */
export function foretoldPace(
  { product, sold, since }: { product: string; sold: readonly SoldOn[]; since: string },
  today: string,
): Foretold[] {
  return Array.from({ length: MOST_LOOKS }, (_, look) => dayAfter(today, -LOOK_DAYS * (look + 1))).flatMap(
    (from): Foretold[] => {
      if (daysBetween(since, from) < LEAST_DAYS) return [];
      const before = sold.filter(({ day }) => day <= from);
      const ahead = salesAhead(before, since, from, LOOK_DAYS);
      if (!ahead) return [];
      const until = dayAfter(from, LOOK_DAYS);
      const came = sold.reduce((sum, { day, bars }) => (day > from && day <= until ? sum + bars : sum), 0);
      return [{ kind: 'pace', product, of: from, on: from, ...ahead, came }];
    },
  );
}

/** Runs of a band that only says whether readings lie in it. */
const RUNS = 40;

/** The highest that a thermometer said of a block, against what was foretold of that place and hour; °C. */
export function foretoldHeat({
  product,
  code,
  on,
  pour,
  readings,
}: Pick<CuredBatch, 'product' | 'code' | 'on'> & {
  pour: Pour;
  readings: readonly Reading[];
}): Foretold[] {
  if (readings.length === 0) return [];
  const highest = readings.reduce((most, one) => (one.c > most.c ? one : most));
  const band = bandAtOnce(pour, { runs: RUNS });
  const range = between(band.hours, band[highest.where], highest.hour, (one) => one);
  return range ? [{ kind: 'heat', product, of: code, on, ...range, came: highest.c }] : [];
}
