/** The ways a pour can be rested or changed, side by side, and which is advised. Craft. */
import type { TraitMaterial } from '../formula/traits';
import type { Formula } from '../formula/types';
import type { Mould } from '../making/size';
import { heatBatters } from './batter';
import { ensemble, type Band, type BandOptions } from './ensemble';
import type { Chances } from './judge';
import { filledShape } from './mould';
import type { Pour, Surroundings } from './types';

/** What is asked about. */
export interface Question {
  formula: Formula;
  materials: readonly TraitMaterial[];
  mould: Mould;
  around: Surroundings;
  startC: number;
}

export const WAYS = ['warm', 'leave', 'chill', 'cooler', 'lessWater', 'single'] as const;
export type Way = (typeof WAYS)[number];

const COOLER_K = 10;
const LESS_WATER = 0.85;
const SINGLE_ML = 100;
/** A mould of single bars, where the maker has none. */
const SINGLE: Mould = { id: 'single', name: 'Single bars', volumeMl: SINGLE_ML, cavities: 1, isSingle: true };

function withLessWater(formula: Formula): Formula {
  if (formula.liquid) return { ...formula, liquid: { ...formula.liquid, value: lessOf(formula.liquid) } };
  return {
    ...formula,
    lines: formula.lines.map((line) =>
      line.stage === 'liquid'
        ? { ...line, amount: { ...line.amount, value: line.amount.value * LESS_WATER } }
        : line,
    ),
  };
}

/** Stronger lye is less water, whichever way it is stated. */
const lessOf = ({ basis, value }: NonNullable<Formula['liquid']>) =>
  basis === 'alkaliConcentration' ? 100 / (1 + (100 / value - 1) * LESS_WATER) : value * LESS_WATER;

/** The pour that a question asks about; null where the formula does not reckon. */
export function pourOf({ formula, materials, mould, around, startC }: Question): Pour | null {
  const batters = heatBatters(formula, materials);
  if (!batters || batters.every(({ massG }) => massG <= 0)) return null;
  const batterMl = batters.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
  const { shape } = filledShape(mould, batterMl);
  return { batters, shape, around, startC };
}

/** The same pour in another way; null where the formula does not reckon. */
export function pourInWay(question: Question, way: Way, single: Mould = SINGLE): Pour | null {
  const { around, startC, formula } = question;
  switch (way) {
    case 'warm':
    case 'leave':
    case 'chill':
      return pourOf({ ...question, around: { ...around, way } });
    case 'cooler':
      return pourOf({ ...question, startC: Math.max(startC - COOLER_K, Math.min(startC, around.roomC)) });
    case 'lessWater':
      return pourOf({ ...question, formula: withLessWater(formula) });
    case 'single':
      return pourOf({ ...question, mould: single });
  }
}

export interface WayBand {
  way: Way;
  band: Band;
}

/** The bands of all ways, one after the other; yields how many runs are done in all. */
export function* bandsOfWays(
  question: Question,
  options: BandOptions & { single?: Mould } = {},
): Generator<number, WayBand[]> {
  const { single, ...rest } = options;
  const found: WayBand[] = [];
  let before = 0;
  for (const way of WAYS) {
    const pour = pourInWay(question, way, single);
    if (!pour) continue;
    const work = ensemble(pour, rest);
    let next = work.next();
    for (; !next.done; next = work.next()) yield before + next.value;
    found.push({ way, band: next.value });
    before += next.value.runs;
  }
  return found;
}

/** How much each thing that goes wrong is to be avoided, against a ring. */
const WEIGHT = { crack: 3, scorch: 2, ring: 1, ash: 0.5 } as const;
type Bad = keyof typeof WEIGHT;
const BAD = Object.keys(WEIGHT) as Bad[];
/** Differences below this are no reason. */
const NO_DIFFERENCE = 0.05;

const badness = (chances: Chances) => BAD.reduce((sum, what) => sum + WEIGHT[what] * chances[what], 0);

export interface Advice {
  way: Surroundings['way'];
  /** What it avoids, worst first, against the others. */
  avoids: { what: Bad; instead: Surroundings['way']; chance: number }[];
  /** What may still go wrong with it. */
  still: { what: Bad; chance: number }[];
  /** Hours after the pour when its middle is hottest: the time to look. */
  lookFrom: number;
  lookTo: number;
}

const RESTS: readonly Surroundings['way'][] = ['leave', 'warm', 'chill'];

/**
 * Which way of resting is advised: what goes wrong least; left as it is where nothing speaks for more.
 *
 * @example
 * advise(bands)?.way; // how to let it rest
 */
export function advise(bands: readonly WayBand[]): Advice | null {
  const rests = RESTS.flatMap((way) => bands.filter((one) => one.way === way));
  if (rests.length === 0) return null;
  const best = rests.reduce((least, one) =>
    badness(one.band.chances) < badness(least.band.chances) - NO_DIFFERENCE ? one : least,
  );
  const { chances, peakMiddleHour } = best.band;
  const avoids = rests
    .filter((one) => one !== best)
    .flatMap(({ way, band }) =>
      BAD.map((what) => ({ what, instead: way as Surroundings['way'], chance: band.chances[what] })).filter(
        ({ what, chance }) => chance - chances[what] > NO_DIFFERENCE,
      ),
    )
    .sort((a, b) => WEIGHT[b.what] * b.chance - WEIGHT[a.what] * a.chance);
  return {
    way: best.way as Surroundings['way'],
    avoids,
    still: BAD.map((what) => ({ what, chance: chances[what] })).filter(
      ({ chance }) => chance > NO_DIFFERENCE,
    ),
    lookFrom: Math.max(0, peakMiddleHour.low / 2),
    lookTo: peakMiddleHour.high,
  };
}
