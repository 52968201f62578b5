/**
 * From the cut to a settled bar: what a batch's weighings say of its loss, its weight in the end and the day it is
 * ready (cure page). Intervals are 80 % intervals; nothing narrower is claimed than was shown.
 */
import type { CureOptions, CureWeighing, Cure, CuredBar, Interval } from './cure-types';
import { cureDoubts } from './doubts';
import { barLogs, evidence, sight, type Evidence, type PouredBar, type Sightings } from './evidence';
import { fitCourses, goneBy, lossPerDayPct, type Particle } from './model';
import { quantile, seededRandom, type Random } from '../numerics/random';

/** Days a bar cures at least where nothing else is said (craft; cure page). */
export const USUAL_MIN_DAYS = 28;
/** A bar counts as settled under this loss, percent of its mass a day. */
export const SETTLED_PCT_PER_DAY = 0.05;
const SETTLED_WEIGHINGS = 3;
const SETTLED_OVER_DAYS = 7;
/** From so many weighings on the intervals hold what they say; before, they are wide. */
const ENOUGH_WEIGHINGS = 4;
const LATEST_DAY = 400;
const CURVE_POINTS = 60;
const CURVE_BEYOND_DAYS = 14;
/** Noise of the scale in its own steps, and how likely; the last ones hold readings that are wrong. */
const NOISES: readonly (readonly [steps: number, share: number])[] = [
  [0.12, 0.1],
  [0.35, 0.25],
  [0.7, 0.3],
  [1.5, 0.22],
  [4, 0.1],
  [30, 0.03],
];
/** What damp and dry days do to a bar: share of its mass a day, as a random walk, and how likely. */
const WEATHERS: readonly (readonly [perDay: number, share: number])[] = [
  [0.0004, 0.2],
  [0.001, 0.6],
  [0.0018, 0.2],
];
/** How unsure the mean mass of a bar at the pour is: spilt and trimmed, and bars unlike where only one was weighed. */
const POURED_DOUBT = 0.003;
const UNLIKE_BARS = 0.04;

interface Fitted {
  sightings: Sightings;
  evidences: Evidence[];
  particles: Particle[];
  random: Random;
}

/** The mean bar at the pour, where poured mass and number are known. */
function pouredBar(weighings: readonly CureWeighing[], { pouredG, bars }: CureOptions): PouredBar | null {
  if (!pouredG || !bars) return null;
  const firsts = [
    ...new Map([...weighings].reverse().map(({ bar, massG }) => [bar, Math.log(massG)])).values(),
  ];
  const mean = firsts.reduce((sum, log) => sum + log, 0) / firsts.length;
  const spread =
    firsts.length > 1
      ? Math.sqrt(firsts.reduce((sum, log) => sum + (log - mean) ** 2, 0) / (firsts.length - 1))
      : UNLIKE_BARS;
  const unseen = Math.max(0, 1 - firsts.length / bars);
  return {
    logG: Math.log(pouredG / bars),
    doubt: Math.sqrt((spread ** 2 * unseen) / firsts.length + POURED_DOUBT ** 2),
  };
}

/** The same weighings always give the same answer. */
function seedOf(weighings: readonly CureWeighing[]): number {
  return weighings.reduce(
    (seed, { day, massG }) => (Math.imul(seed, 31) + Math.round(day * 24) + Math.round(massG * 100)) | 0,
    weighings.length,
  );
}

/** Bars and rounds that the fit takes in; more of either add work and hardly anything else. */
const MOST_BARS = 30;
const MOST_ROUNDS = 60;

/** The bars weighed most, and of very many rounds an even choice that keeps the first and the last. */
function bounded(weighings: readonly CureWeighing[]): CureWeighing[] {
  const times = new Map<string, number>();
  for (const { bar } of weighings) times.set(bar, (times.get(bar) ?? 0) + 1);
  const bars = new Set(
    [...times]
      .sort((a, b) => b[1] - a[1])
      .slice(0, MOST_BARS)
      .map(([bar]) => bar),
  );
  const days = [
    ...new Set(weighings.filter(({ bar }) => bars.has(bar)).map(({ day }) => Math.floor(day * 8))),
  ].sort((a, b) => a - b);
  const step = Math.max(1, (days.length - 1) / (MOST_ROUNDS - 1));
  const chosen = new Set(
    Array.from({ length: Math.min(days.length, MOST_ROUNDS) }, (_, at) => days[Math.round(at * step)]!),
  );
  const seen = new Set<string>();
  return weighings.filter(({ bar, day }) => {
    const round = Math.floor(day * 8);
    const key = `${bar} ${round}`;
    if (!bars.has(bar) || !chosen.has(round) || (days.length > MOST_ROUNDS && seen.has(key))) return false;
    seen.add(key);
    return true;
  });
}

function fit(weighings: readonly CureWeighing[], options: CureOptions, readabilityG: number): Fitted {
  const sightings = sight(weighings, pouredBar(weighings, options));
  const evidences = NOISES.flatMap(([steps, noise]) =>
    WEATHERS.map(([weatherPerDay, weather]) =>
      evidence(sightings, {
        noiseG: steps * readabilityG,
        weatherPerDay,
        logPrior: Math.log(noise * weather),
      }),
    ),
  );
  const seed = seedOf(weighings);
  return {
    sightings,
    evidences,
    particles: fitCourses(sightings.days, evidences, seed),
    random: seededRandom(seed + 1),
  };
}

function interval(values: number[]): Interval {
  const sorted = [...values].sort((a, b) => a - b);
  return { low: quantile(sorted, 0.1), likely: quantile(sorted, 0.5), high: quantile(sorted, 0.9) };
}

/** Masses of the bars at the pour, once for every course: with the doubt that noise and weather leave. */
function pouredMasses({ sightings, evidences, particles, random }: Fitted): number[][] {
  return particles.map((particle) => {
    const under = evidences[particle.under]!;
    const course = Float64Array.from(sightings.days, (day) => Math.log1p(-goneBy(particle, day)));
    const common = random.normal();
    return [...barLogs(under, course)].map((log, bar) => {
      // Bars share the weather of their days: most of what is unsure of one is unsure of all.
      const variance = under.barCovariance[bar]![bar]!;
      const shared = sharedVariance(under, bar);
      const own = Math.sqrt(Math.max(0, variance - shared)) * random.normal();
      return Math.exp(log + Math.sqrt(shared) * common + own);
    });
  });
}

function sharedVariance({ barCovariance }: Evidence, bar: number): number {
  const others = barCovariance.map((row) => row[bar]!).filter((_, other) => other !== bar);
  if (others.length === 0) return barCovariance[bar]![bar]!;
  return Math.max(0, Math.min(...others));
}

/** The first day on which a course loses less than a settled bar does. */
function readyOf(particle: Particle, minDays: number): number {
  if (lossPerDayPct(particle, minDays) < SETTLED_PCT_PER_DAY) return minDays;
  let [low, high] = [minDays, LATEST_DAY];
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2;
    if (lossPerDayPct(particle, middle) < SETTLED_PCT_PER_DAY) high = middle;
    else low = middle;
  }
  return high;
}

function curveOf(fitted: Fitted, masses: readonly number[][], readyDay: number): Cure['curve'] {
  const { particles, sightings } = fitted;
  const last = Math.max(sightings.days.at(-1)!, Math.min(readyDay, LATEST_DAY / 4)) + CURVE_BEYOND_DAYS;
  const means = masses.map((bars) => bars.reduce((sum, mass) => sum + mass, 0) / bars.length);
  return Array.from({ length: CURVE_POINTS + 1 }, (_, at) => {
    const day = (last * at) / CURVE_POINTS;
    const { low, likely, high } = interval(particles.map((one, p) => means[p]! * (1 - goneBy(one, day))));
    return { day, lowG: low, likelyG: likely, highG: high };
  });
}

/** The bar that was weighed most, and over how many days. */
function bestWeighed(weighings: readonly CureWeighing[]): { times: number; overDays: number } {
  const days = new Map<string, number[]>();
  for (const { bar, day } of weighings) days.set(bar, [...(days.get(bar) ?? []), day]);
  const all = [...days.values()].map((of) => ({
    times: new Set(of).size,
    overDays: Math.max(...of) - Math.min(...of),
  }));
  return all.reduce(
    (best, one) =>
      one.times > best.times || (one.times === best.times && one.overDays > best.overDays) ? one : best,
    { times: 0, overDays: 0 },
  );
}

function barRows(weighings: readonly CureWeighing[]): CuredBar[] {
  return [...new Set(weighings.map(({ bar }) => bar))].map((bar) => {
    const rows = weighings.filter((one) => one.bar === bar).sort((a, b) => a.day - b.day);
    const [firstG, lastG] = [rows[0]!.massG, rows.at(-1)!.massG];
    return { bar, firstG, lastG, lossPct: 100 * (1 - lastG / firstG), settledG: null };
  });
}

const plural = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
const days = (value: number) => plural(Math.ceil(value - 1e-9), 'day');

function needsOf(
  weighings: readonly CureWeighing[],
  minDays: number,
  found: { loss: Interval | null; isWide: boolean; ready: Interval | null },
): string[] {
  if (weighings.length === 0)
    return [
      'Weigh at least one bar: best three, from different places in the mould, every few days. Until then only the formula’s prediction stands.',
    ];
  const { times, overDays } = bestWeighed(weighings);
  const now = Math.max(...weighings.map(({ day }) => day));
  const needs: string[] = [];
  if (times < SETTLED_WEIGHINGS)
    needs.push(
      `Weigh the same bar ${plural(SETTLED_WEIGHINGS - times, 'more time')}: before ${SETTLED_WEIGHINGS} weighings there is no curve, only the formula’s prediction.`,
    );
  else if (found.isWide)
    needs.push('Weigh the same bars once more: with fewer than four weighings the ranges are wide.');
  if (times >= SETTLED_WEIGHINGS - 1 && overDays < SETTLED_OVER_DAYS)
    needs.push(
      `Weigh again in ${days(SETTLED_OVER_DAYS - overDays)}: the weighings have to span seven days.`,
    );
  if (now < minDays)
    needs.push(`Weigh again from day ${Math.ceil(minDays)} on: the bars cure at least ${days(minDays)}.`);
  if (found.loss && found.loss.high >= SETTLED_PCT_PER_DAY)
    needs.push(
      `Go on weighing: a bar may still lose up to ${found.loss.high.toFixed(3)}\u00a0% of its mass a day; settled is under ${SETTLED_PCT_PER_DAY}\u00a0%${found.ready && found.ready.likely > now ? `, likely by day ${Math.ceil(found.ready.likely)}` : ''}.`,
    );
  return needs;
}

/** What has to be decided before anything is settled. */
const decide = (doubts: Cure['doubts']) =>
  doubts.map(({ message }) => `Decide first: ${message} Leave it out, or say why it is right.`);

/** Settled for all bars there are: from what was poured where that is known, else from the bars weighed. */
function wholeOf(ratio: number, settled: readonly number[], { pouredG, bars }: CureOptions): number {
  if (pouredG && bars) return ratio * pouredG;
  const sum = settled.reduce((total, mass) => total + mass, 0);
  return bars ? (sum / settled.length) * bars : sum;
}

/** Weighings that can be reckoned with: a day from the pour on, and some mass. */
const isWeighing = ({ day, massG }: CureWeighing) =>
  Number.isFinite(day) && day >= 0 && Number.isFinite(massG) && massG > 0;

/**
 * What weighings say of a cure. Days count from the pour, masses are grams; shares and losses are percent of a bar's
 * own mass. Weighings without a mass or before the pour are left out. Never throws.
 *
 * @example
 * cure([{ bar: '1', day: 2, massG: 98 }, …], { readabilityG: 0.1 }).readyOnDay; // { low: 29, likely: 34, high: 41 }
 */
export function cure(weighings: readonly CureWeighing[], options: CureOptions = {}): Cure {
  const { minDays = USUAL_MIN_DAYS, leaveOut = [], confirmed = [] } = options;
  const readabilityG = options.readabilityG && options.readabilityG > 0 ? options.readabilityG : 1;
  const isKept = (place: number) => !leaveOut.includes(place) && isWeighing(weighings[place]!);
  const kept = weighings.filter((_, place) => isKept(place));
  const bars = barRows(kept);
  const doubts = cureDoubts(weighings, readabilityG, isKept).filter(
    ({ weighing }) => !confirmed.includes(weighing),
  );
  const { times, overDays } = bestWeighed(kept);
  const isWide = times < ENOUGH_WEIGHINGS;
  const nothing = { loss: null, isWide, ready: null };
  if (times < SETTLED_WEIGHINGS) {
    return {
      bars,
      lossPerDayPct: null,
      settled: false,
      settledG: null,
      readyOnDay: null,
      massRatio: null,
      isWide,
      needs: [...decide(doubts), ...needsOf(kept, minDays, nothing)],
      doubts,
      curve: [],
    };
  }
  const fitted = fit(bounded(kept), options, readabilityG);
  const { particles } = fitted;
  const now = Math.max(...kept.map(({ day }) => day));
  const loss = interval(particles.map((one) => lossPerDayPct(one, now)));
  const ready = interval(particles.map((one) => readyOf(one, minDays)));
  const masses = pouredMasses(fitted);
  const settledBars = particles.map((one, p) => masses[p]!.map((massG) => massG * (1 - one.loss)));
  const ratio = interval(particles.map(({ loss: gone }) => 1 - gone));
  const isCured = overDays >= SETTLED_OVER_DAYS && now >= minDays && loss.high < SETTLED_PCT_PER_DAY;
  // A slip may be what makes a curve look flat: while one is in doubt nothing is settled.
  const settled = isCured && doubts.length === 0;
  return {
    bars: bars.map((bar) => {
      const at = fitted.sightings.bars.indexOf(bar.bar);
      return { ...bar, settledG: at < 0 ? null : interval(settledBars.map((of) => of[at]!)) };
    }),
    lossPerDayPct: loss,
    settled,
    settledG: interval(particles.map((one, p) => wholeOf(1 - one.loss, settledBars[p]!, options))),
    readyOnDay: ready,
    massRatio: { low: ratio.low, typical: ratio.likely, high: ratio.high },
    isWide,
    needs: [...decide(doubts), ...(isCured ? [] : needsOf(kept, minDays, { loss, isWide, ready }))],
    doubts,
    curve: curveOf(fitted, masses, ready.high),
  };
}
