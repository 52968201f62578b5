/**
 * The shapes of a formula, its materials and the rules it is held against, as the assessment exchange format
 * fixes them. Masses in grams, percents from 0 to 100, dates as YYYY-MM-DD.
 */
import type { Unit } from '../quantities/units';

export const MARKETS = ['EU', 'UK', 'US', 'CA', 'AU'] as const;
export type Market = (typeof MARKETS)[number];

export const STAGES = ['fats', 'liquid', 'heldBack', 'lye', 'intoFats', 'trace', 'afterCook', 'top'] as const;
export type Stage = (typeof STAGES)[number];

export const KINDS = [
  'fat',
  'wax',
  'alkali',
  'liquid',
  'milk',
  'fragrance',
  'essentialOil',
  'isolate',
  'clay',
  'salt',
  'sugar',
  'botanical',
  'colourant',
  'exfoliant',
  'fibre',
  'acid',
  'lactate',
  'other',
] as const;
export type Kind = (typeof KINDS)[number];

export const MEASURES = ['scale', 'spoon', 'heaped', 'eye'] as const;
export type Measure = (typeof MEASURES)[number];

export const LIQUID_BASES = ['ofFats', 'perAlkali', 'alkaliConcentration'] as const;
export const SAPONIFIES_AS = ['triglyceride', 'freeAcid', 'wax'] as const;
export const INCI_ROLES = ['ingredient', 'colourant', 'scent', 'water'] as const;
export type InciRole = (typeof INCI_ROLES)[number];
export const LIMIT_BASES = ['cured', 'pour', 'fats'] as const;
export type LimitBasis = (typeof LIMIT_BASES)[number];
export const FORCES = ['law', 'standard', 'certificate', 'craft'] as const;
export type Force = (typeof FORCES)[number];
export const SUBJECT_TYPES = ['material', 'constituent', 'kind', 'inci', 'colour'] as const;
export const PROCESSES = ['cold', 'hot'] as const;
export const USED_ON = ['body', 'face', 'hands'] as const;
export type UsedOn = (typeof USED_ON)[number];
export const SCENT_NAMINGS = ['parfum', 'named'] as const;

export const REQUEST_FORMAT = 'proportia.assessment-request/1';
export const FORMULA_FORMAT = 'proportia.formula/1';
export const ASSESSMENT_FORMAT = 'proportia.assessment/1';

export interface Amount {
  value: number;
  unit: Unit;
}

export interface Line {
  id: string;
  material: string;
  stage: Stage;
  amount: Amount;
  measuredBy?: Measure | null;
  /** Symmetric relative doubt on the mass, in percent; takes precedence over `measuredBy`. */
  uncertaintyPct?: number | null;
  /** Doubt below and above on a mass of several weighings, in percent; takes precedence over all else. */
  doubtPct?: { low: number; high: number } | null;
  portion?: string | null;
}

export interface Portion {
  id: string;
  /** Share of the common batter, 0 to 1. */
  share: number;
}

export interface Formula {
  format?: string;
  name?: string;
  process?: (typeof PROCESSES)[number];
  /** Grams; the whole that fat lines in percent of fats are taken from. */
  fatsMassG?: number | null;
  alkali: { superfatPct?: number | null; massG?: number | null; purityPct?: number | null };
  liquid?: { basis: (typeof LIQUID_BASES)[number]; value: number } | null;
  cure?: { residualWaterPct?: number | null; massRatio?: number | null } | null;
  marginPct?: number | null;
  portions?: Portion[] | null;
  scentNaming?: (typeof SCENT_NAMINGS)[number] | null;
  /** Bars that one batch makes; for what a bar weighs and costs. */
  bars?: number | null;
  /** Where the bar is used; the outlook judges grains, pores and cooling oils by it. */
  usedOn?: UsedOn | null;
  lines: Line[];
}

export interface Saponification {
  /** Grams of pure sodium hydroxide that one gram takes up. */
  naohPerGram: number;
  as?: (typeof SAPONIFIES_AS)[number] | null;
  formedInci?: string | null;
}

export interface InciPart {
  name: string;
  sharePct: number;
  role?: InciRole | null;
  /** The name in markets that use another one, e.g. an English colour name. */
  names?: Partial<Record<Market, string>> | null;
  /** What the rulebook calls the colour, where the part is one and is written otherwise. */
  colour?: string | null;
}

export interface Constituent {
  id: string;
  lowPct: number;
  typicalPct: number;
  highPct: number;
}

export interface Subject {
  type: (typeof SUBJECT_TYPES)[number];
  /** Constituents that share one limit stand in one id with a plus between them: see `membersOf`. */
  id: string;
}

export interface Limit {
  id: string;
  subject: Subject;
  maxPct: number;
  basis: LimitBasis;
  force: Force;
  markets?: Market[] | null;
  /** First day in force; null is open. */
  from?: string | null;
  /** Last day in force; null is open. */
  to?: string | null;
  source?: string | null;
  /** Speaks only where a scent that brings the subject has no limit of its own: a first look, never a proof. */
  onlyUnproven?: boolean | null;
}

export interface Material {
  id: string;
  name: string;
  kind: Kind;
  saponification?: Saponification | null;
  fatPct?: number | null;
  fatSaponification?: Saponification | null;
  waterPct?: number | null;
  /** Grams of pure sodium hydroxide that one gram of the acid neutralises. */
  alkaliUptake?: number | null;
  formedInci?: string | null;
  /** Grams per millilitre, as spooned. */
  bulkDensity?: number | null;
  /** Grams per millilitre, as suspended in batter. */
  density?: number | null;
  inci?: InciPart[] | null;
  /** CAS, EC and colour index numbers it is known by. */
  numbers?: string[] | null;
  constituents?: Constituent[] | null;
  limits?: Limit[] | null;
  fattyAcids?: FattyAcids | null;
  /** How far a level spoon of it lies from the mean, measured with the maker's own spoon, percent. */
  spoonPct?: number | null;
  /** What a mix holds of other materials; its limits and certificates are then those of its parts. */
  madeOf?: MadeOf[] | null;
}

/** One material within a mix, percent of the mix. */
export interface MadeOf {
  material: string;
  kind: Kind;
  sharePct: number;
}

export const FATTY_ACIDS = [
  'caprylicCapric',
  'lauric',
  'myristic',
  'palmitic',
  'stearic',
  'oleic',
  'ricinoleic',
  'linoleic',
  'linolenic',
  'other',
] as const;

/** Shares of the fatty acids of a fat, percent. */
export type FattyAcids = Partial<Record<(typeof FATTY_ACIDS)[number], number>>;

/**
 * Advice that one load puts on the rest of the formula: where the subject is above `abovePct` of the basis,
 * the formula should hold at least so much of something else. With no wants, being above is itself the finding.
 */
export interface CraftDemand {
  id: string;
  /** `lauricFats` are all fats in which lauric acid leads. */
  subject: Subject | { type: 'lauricFats'; id: string };
  abovePct: number;
  basis: 'fats' | 'liquid';
  /** Only lines of these stages count; all where left out. */
  stages?: Stage[] | null;
  wants: { lauricFatsPct?: number; superfatPct?: number };
  reason: string;
  source?: string | null;
}

export interface Declarable {
  id: string;
  name: string;
  markets: Market[];
  thresholdPct: number;
  newFrom?: string | null;
  allFrom?: string | null;
  /**
   * What the dates speak of: the day the product first came on the market (`product`, also where left out), or the
   * day the units themselves are placed on it (`unit`), however old the product is.
   */
  per?: 'product' | 'unit' | null;
}

export interface Rules {
  replace?: boolean | null;
  limits?: Limit[] | null;
  declarables?: Declarable[] | null;
}

export interface AssessmentRequest {
  format: string;
  formula: Formula;
  materials?: Material[] | null;
  rules?: Rules | null;
  markets: Market[];
  onDate: string;
  firstPlacedOn?: Partial<Record<Market, string>> | null;
  /** When the units looked at were placed on each market; left out, on the day looked at. */
  placedOn?: Partial<Record<Market, string>> | null;
  /** Ask for the chain of arithmetic behind every limit. */
  explain?: boolean | null;
}

/** The stored rulebook and library a request falls back on. Both are only read. */
export interface Stored {
  /** The material of that id, or undefined. */
  material(id: string): Material | undefined;
  limits: readonly Limit[];
  declarables: readonly Declarable[];
  demands?: readonly CraftDemand[];
}

/** A fault in a request: the path to the field, a stable code, and what to do about it in plain words. */
export interface RequestError {
  path: string;
  code: string;
  message: string;
}
