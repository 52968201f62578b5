/** The shapes of a run sheet (`proportia.run-sheet/1`). Masses in grams, temperatures in °C, times in minutes. */
import type { TraitMaterial } from '../formula/traits';
import type { Weights } from '../quantities/say';
import type { Formula, Limit, Market, RequestError } from '../formula/types';

export const RUN_SHEET_FORMAT = 'proportia.run-sheet/1';

export const PLACES = ['gear', 'premix', 'lye', 'fats', 'join', 'portion', 'mould', 'rest'] as const;
export type Place = (typeof PLACES)[number];

/** Line under which the alkali is weighed, and the one of a lye made strong beforehand. */
export const ALKALI_LINE = 'alkali';
export const LYE_STOCK_LINE = 'lye-stock';
/** Line under which fats are weighed from a bucket. */
export const BUCKET_LINE = 'fats-bucket';

/** What counts as plain water, so that a stock's water may stand for it, percent; a tea or a juice does not. */
export const WATER_PCT = 99.99;

/** One thing to weigh. */
export interface Weigh {
  /** The formula's line id, `alkali`, `lye-stock` or `fats-bucket`. */
  line: string;
  material: string;
  name: string;
  massG: number;
  /** How far below and above the mass still counts as right. */
  underG: number;
  overG: number;
  vessel: string;
  portion: string | null;
}

export interface RunStep {
  id: string;
  place: Place;
  title: string;
  /** One plain instruction. */
  how: string;
  why: string;
  cautions: string[];
  weigh: Weigh[];
  temperatureC: { from: number; to: number } | null;
  /** Ids of the steps that must be done before. */
  after: string[];
  /** For a timer; null where none is wanted. */
  minutes: number | null;
}

export interface RunSheet {
  format: typeof RUN_SHEET_FORMAT;
  /** The formula at the size of the day. */
  formula: Formula;
  fatsG: number;
  pourG: number;
  alkaliG: number;
  /** Bars that are likely to come out; null where the formula does not say. */
  bars: number | null;
  moulds: { id: string; name: string; count: number }[];
  /**
   * `isMade`: taken from a lot of lye stock, not from the hydroxide that it is made of. `dryG`: alkali weighed dry besides,
   * where the formula has not water enough for all of it as stock.
   */
  lyeStock: { concentrationPct: number; massG: number; waterG: number; dryG?: number; isMade?: true } | null;
  /** Fats melted together beforehand, and how much of each line a bucket of them brings; absent where there is none. */
  bucket?: Bucket;
  /** Every vessel wanted, once. */
  vessels: string[];
  /** Time the steps take one after the other, waiting included. */
  minutes: number;
  steps: RunStep[];
}

/** What of a mix of fats is taken, and what it brings of each line, grams. */
export interface Bucket {
  material: string;
  name: string;
  massG: number;
  parts: { line: string; massG: number }[];
}

export interface RunSheetOptions {
  /** A size: at most one of these; none is the formula as it stands. */
  fatsMassG?: number;
  bars?: number;
  /** Each needs its volume here or among `mouldsOnFile`. */
  moulds?: { id: string; count: number; volumeMl?: number; name?: string }[];
  mouldsOnFile?: readonly { id: string; name: string; volumeMl: number }[];
  /** A lye made strong beforehand, percent of hydroxide as weighed. */
  /** With `restDry` as much of it as there is water for, the rest of the alkali dry. */
  lyeStock?: { concentrationPct: number; restDry?: boolean; isMade?: boolean } | null;
  /** A mix of fats that is drawn from, as far as the formula holds its parts. */
  bucket?: TraitMaterial | null;
  /** Of the scale; left out, 1 g, and 0.1 g for what is under 50 g. */
  readabilityG?: number;
  /** What its words say masses in; left out, grams. */
  weights?: Weights;
  /** Limits besides those of the materials, and where and when they are looked at; without a day all count. */
  limits?: readonly Limit[];
  markets?: Market[];
  onDate?: string;
}

export type RunSheetResult = ({ ok: true } & RunSheet) | { ok: false; errors: RequestError[] };
