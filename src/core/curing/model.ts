/**
 * Courses of loss that fit the weighings of a batch: a loss in the end, reached along one or two exponentials. They
 * are drawn by moving a crowd of courses, spread as bars are known to dry, step by step towards the weighings
 * (tempered sequential sampling); what is told is read off the crowd.
 */
import { logLikely, type Evidence } from './evidence';
import { seededRandom, type Random } from '../numerics/random';

export interface Course {
  /** Share of the poured mass that goes in the end. */
  loss: number;
  /** Days in which a part of what still goes has gone but for 1/e. */
  daysFast: number;
  daysSlow: number;
  /** Share of the loss that follows `daysFast`; 1 for a single exponential. */
  fastShare: number;
}

/** A course with the assumption about noise and weather it was weighed under. */
export interface Particle extends Course {
  under: number;
}

/** Bars lose within these bounds and as fast as this (craft; cure page), a little widened. */
const LOSS = [0.045, 0.225] as const;
const DAYS = [3, 34] as const;
const SHARE = [0.15, 0.85] as const;
const PARTICLES = 500;
const MOVES = 5;
const LAST_MOVES = 10;
/** How often a move draws another assumption, or another number of exponentials. */
const OTHER_ASSUMPTION = 0.25;
const OTHER_KIND = 0.15;
/** Share of the crowd that must still count after a step. */
const STILL_COUNT = 0.5;
const STEP = 2.38 / Math.sqrt(8);
const JITTER = 1e-3;

/** Share of the poured mass that is gone on a day. */
export function goneBy({ loss, daysFast, daysSlow, fastShare }: Course, day: number): number {
  const fast = -Math.expm1(-day / daysFast);
  return fastShare >= 1
    ? loss * fast
    : loss * (fastShare * fast - (1 - fastShare) * Math.expm1(-day / daysSlow));
}

/** Percent of its mass that a bar loses a day, on a day. */
export function lossPerDayPct(course: Course, day: number): number {
  const { loss, daysFast, daysSlow, fastShare } = course;
  const fast = (fastShare / daysFast) * Math.exp(-day / daysFast);
  const slow = fastShare >= 1 ? 0 : ((1 - fastShare) / daysSlow) * Math.exp(-day / daysSlow);
  return (100 * loss * (fast + slow)) / (1 - goneBy(course, day));
}

const within = (value: number, [low, high]: readonly [number, number]) => value >= low && value <= high;

/** Days are as likely as the inverse of their root: between even, and even in their logarithm. */
function drawDays({ uniform }: Random): number {
  const [low, high] = [Math.sqrt(DAYS[0]), Math.sqrt(DAYS[1])];
  return (low + (high - low) * uniform()) ** 2;
}

function draw(random: Random, assumptions: number): Particle {
  const isSingle = random.uniform() < 0.5;
  return {
    loss: LOSS[0] + (LOSS[1] - LOSS[0]) * random.uniform(),
    daysFast: drawDays(random),
    daysSlow: drawDays(random),
    fastShare: isSingle ? 1 : SHARE[0] + (SHARE[1] - SHARE[0]) * random.uniform(),
    under: Math.floor(random.uniform() * assumptions),
  };
}

function isPossible({ loss, daysFast, daysSlow, fastShare }: Particle): boolean {
  const isShare = fastShare === 1 || within(fastShare, SHARE);
  return within(loss, LOSS) && within(daysFast, DAYS) && within(daysSlow, DAYS) && isShare;
}

/** Log density of the days' prior, in the coordinates moves are made in (the days' logarithms). */
const logPrior = ({ daysFast, daysSlow }: Particle) => 0.5 * (Math.log(daysFast) + Math.log(daysSlow));

/** A course within reach: along the difference of two others of the crowd, so that steps fit the crowd's own shape. */
function nearby(one: Particle, a: Particle, b: Particle, { normal }: Random): Particle {
  const along = (value: number, from: number, to: number) => value + STEP * (to - from) + JITTER * normal();
  const days = (value: number, from: number, to: number) =>
    Math.exp(along(Math.log(value), Math.log(from), Math.log(to)));
  const isMixed = one.fastShare < 1;
  return {
    ...one,
    loss: along(one.loss, a.loss, b.loss),
    daysFast: days(one.daysFast, a.daysFast, b.daysFast),
    daysSlow: days(one.daysSlow, a.daysSlow, b.daysSlow),
    fastShare:
      isMixed && a.fastShare < 1 && b.fastShare < 1
        ? along(one.fastShare, a.fastShare, b.fastShare)
        : one.fastShare,
  };
}

function proposal(one: Particle, crowd: readonly Particle[], assumptions: number, random: Random): Particle {
  const pick = () => crowd[Math.floor(random.uniform() * crowd.length)]!;
  const chance = random.uniform();
  if (chance < OTHER_ASSUMPTION) return { ...one, under: Math.floor(random.uniform() * assumptions) };
  if (chance < OTHER_ASSUMPTION + OTHER_KIND) {
    const { fastShare, daysSlow } = draw(random, assumptions);
    return { ...one, fastShare, daysSlow };
  }
  return nearby(one, pick(), pick(), random);
}

/** How far the next step may go so that enough of the crowd still counts. */
function nextHeat(logs: readonly number[], heat: number): number {
  const counting = (to: number) => {
    const most = Math.max(...logs);
    const weights = logs.map((log) => Math.exp((to - heat) * (log - most)));
    const sum = weights.reduce((total, weight) => total + weight, 0);
    return sum ** 2 / weights.reduce((total, weight) => total + weight ** 2, 0) / logs.length;
  };
  if (counting(1) >= STILL_COUNT) return 1;
  let [low, high] = [heat, 1];
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2;
    if (counting(middle) >= STILL_COUNT) low = middle;
    else high = middle;
  }
  return Math.max(low, heat + 1e-12);
}

/** Draws the crowd anew by weight, evenly. */
function chosen<T>(crowd: readonly T[], weights: readonly number[], { uniform }: Random): T[] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const step = total / crowd.length;
  let [at, sum] = [0, weights[0]!];
  const start = uniform() * step;
  return crowd.map((_, index) => {
    const target = start + index * step;
    while (sum < target && at < crowd.length - 1) sum += weights[++at]!;
    return crowd[at]!;
  });
}

interface Weighed {
  particle: Particle;
  log: number;
}

/**
 * Courses that fit, all equally likely. `days` are those of the evidence; every entry of `evidences` is one
 * assumption about noise and weather.
 */
export function fitCourses(
  days: readonly number[],
  evidences: readonly Evidence[],
  seed: number,
): Particle[] {
  const random = seededRandom(seed);
  const course = new Float64Array(days.length);
  const logOf = (particle: Particle) => {
    for (let i = 0; i < days.length; i++) course[i] = Math.log1p(-goneBy(particle, days[i]!));
    return logLikely(evidences[particle.under]!, course);
  };
  const weigh = (particle: Particle): Weighed => ({ particle, log: logOf(particle) });
  let crowd = Array.from({ length: PARTICLES }, () => weigh(draw(random, evidences.length)));
  for (let heat = 0; heat < 1;) {
    const next = nextHeat(
      crowd.map(({ log }) => log),
      heat,
    );
    const most = Math.max(...crowd.map(({ log }) => log));
    crowd = chosen(
      crowd,
      crowd.map(({ log }) => Math.exp((next - heat) * (log - most))),
      random,
    );
    heat = next;
    const moves = heat === 1 ? LAST_MOVES : MOVES;
    for (let move = 0; move < moves; move++) {
      const others = crowd.map(({ particle }) => particle);
      crowd = crowd.map((old) => {
        const particle = proposal(old.particle, others, evidences.length, random);
        if (!isPossible(particle)) return old;
        const fresh = weigh(particle);
        const isOtherDays =
          particle.daysSlow !== old.particle.daysSlow && particle.daysFast === old.particle.daysFast;
        // Days drawn anew come as they are likely; days moved along the crowd want their likelihood counted.
        const prior = isOtherDays ? 0 : logPrior(particle) - logPrior(old.particle);
        return Math.log(random.uniform()) < heat * (fresh.log - old.log) + prior ? fresh : old;
      });
    }
  }
  return crowd.map(({ particle }) => particle);
}
