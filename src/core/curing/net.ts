/**
 * Net weight (cure page): the lightest bar counts; what may be declared, and what unweighed bars are likely to be.
 * Everything about bars that were not weighed is an estimate from the spread of those that were.
 */
import type { Market } from '../formula/types';
import { netText } from '../labels/heights';
import { quantile, seededRandom, type Random } from '../numerics/random';
import { LABEL_MANNERS } from '../labels/manners';

export interface UnderPlanned {
  /** How many of the unweighed bars are likely under the planned figure, with the ends of an 80 % interval. */
  likely: number;
  low: number;
  high: number;
}

export interface NetWeight {
  lightestG: number;
  heaviestG: number;
  meanG: number;
  /** Standard deviation; null where only one bar was weighed. */
  spreadG: number | null;
  /** Grams that may be declared for every bar weighed, rounded down. */
  declareG: number;
  /** As the market writes it. */
  text: string;
  /** The figure the bars are held against: the planned one, or what may be declared. */
  plannedG: number;
  /** An estimate; null where fewer than two bars were weighed or none is left unweighed. */
  under: UnderPlanned | null;
  /** What weighing so many bars more would leave of it, if they are like those weighed. */
  more: { bars: number; under: UnderPlanned }[];
  /** Weighed bars under the planned figure: their places and what they lack. */
  below: { place: number; massG: number; shortG: number }[];
  /** In words; empty where every weighed bar holds the planned figure. */
  waysOut: string[];
}

const DRAWS = 2000;
/** Bars more that are worth asking about. */
const MORE_BARS = [3, 10] as const;

/** A number of successes in so many tries. */
function binomial(tries: number, chance: number, { uniform, normal }: Random): number {
  const variance = tries * chance * (1 - chance);
  if (tries > 200 && variance > 25)
    return Math.min(tries, Math.max(0, Math.round(tries * chance + Math.sqrt(variance) * normal())));
  let count = 0;
  for (let at = 0; at < tries; at++) if (uniform() < chance) count++;
  return count;
}

const SERIES_TO = 6;
const HALF_LOG_TWO_PI = 0.5 * Math.log(2 * Math.PI);

/** Share of a normal distribution below a value (series by Marsaglia; its tails are 0 and 1 here). */
function normalBelow(value: number): number {
  if (value < -SERIES_TO) return 0;
  if (value > SERIES_TO) return 1;
  let [sum, term] = [value, value];
  for (let step = 3; Math.abs(term) > 1e-15; step += 2) {
    term *= (value * value) / step;
    sum += term;
  }
  return 0.5 + sum * Math.exp(-0.5 * value * value - HALF_LOG_TWO_PI);
}

/**
 * Bars under a figure: mean and spread drawn as they may be behind so many weighed bars (Student's t), then bars
 * drawn from them.
 */
function underOf(
  { meanG, spreadG, weighed }: { meanG: number; spreadG: number; weighed: number },
  plannedG: number,
  bars: number,
): UnderPlanned {
  const random = seededRandom(weighed * 7919 + bars);
  const counts: number[] = [];
  for (let draw = 0; draw < DRAWS; draw++) {
    let squares = 0;
    for (let at = 1; at < weighed; at++) squares += random.normal() ** 2;
    const sd = spreadG * Math.sqrt((weighed - 1) / squares);
    const mean = meanG + (sd / Math.sqrt(weighed)) * random.normal();
    const chance = sd > 0 ? normalBelow((plannedG - mean) / sd) : Number(mean < plannedG);
    counts.push(binomial(bars, chance, random));
  }
  counts.sort((a, b) => a - b);
  const likely = counts.reduce((sum, count) => sum + count, 0) / DRAWS;
  return { likely, low: quantile(counts, 0.1), high: quantile(counts, 0.9) };
}

const grams = (massG: number) => `${Number(massG.toFixed(1))} g`;

function waysOut(below: NetWeight['below'], text: string, plannedG: number): string[] {
  if (below.length === 0) return [];
  const count = below.length === 1 ? '1 bar' : `${below.length} bars`;
  return [
    `Sort: weigh every bar and keep the ${count} under ${grams(plannedG)} out.`,
    `Relabel: declare ${text} for all of them.`,
    `Sort the ${count} out as seconds: under this label they are not for sale.`,
  ];
}

/** Rounded down, but for what arithmetic leaves. */
const down = (massG: number, steps = 1) => Math.floor(massG * steps + 1e-9) / steps;

/**
 * Grams to propose for a batch's release, for every market it may go to: whole ones; where ounces stand beside them, tenths,
 * so that both are rounded down once, from the same bars, when they are printed.
 *
 * @example
 * proposedNetG(82.94, ['EU', 'US']); // 82.9: "82 g" and "Net Wt 2.9 oz (82 g)"
 */
export const proposedNetG = (lightestG: number, markets: readonly Market[]): number =>
  down(lightestG, markets.some((market) => LABEL_MANNERS[market].hasOunces) ? 10 : 1);

/**
 * What may be declared from weights of cured bars, grams. `bars` is how many bars there are besides those weighed;
 * `plannedG` the net weight that a label says or shall say. Null where no bar was weighed.
 *
 * @example
 * declareNet([92.4, 95.1, 101.8], 'EU', 21, 93)?.text; // '92 g'
 */
export function declareNet(
  weightsG: readonly number[],
  market: Market,
  bars = 0,
  plannedG: number | null = null,
): NetWeight | null {
  const weights = weightsG.filter((massG) => Number.isFinite(massG) && massG > 0);
  if (weights.length === 0) return null;
  const lightestG = Math.min(...weights);
  const meanG = weights.reduce((sum, massG) => sum + massG, 0) / weights.length;
  const squares = weights.reduce((sum, massG) => sum + (massG - meanG) ** 2, 0);
  const spreadG = weights.length > 1 ? Math.sqrt(squares / (weights.length - 1)) : null;
  const declareG = down(lightestG);
  // From the bars themselves: ounces of grams that are rounded down already would be rounded down twice.
  const text = netText(market, lightestG);
  const held = plannedG ?? declareG;
  const below = weightsG.flatMap((massG, place) =>
    massG > 0 && massG < held ? [{ place, massG, shortG: held - massG }] : [],
  );
  const known = spreadG !== null && bars > 0 ? { meanG, spreadG, weighed: weights.length } : null;
  const more = MORE_BARS.filter((count) => known && count < bars).map((count) => ({
    bars: count,
    under: underOf({ ...known!, weighed: weights.length + count }, held, bars - count),
  }));
  return {
    lightestG,
    heaviestG: Math.max(...weights),
    meanG,
    spreadG,
    declareG,
    text,
    plannedG: held,
    under: known && underOf(known, held, bars),
    more,
    below,
    waysOut: waysOut(below, text, held),
  };
}
