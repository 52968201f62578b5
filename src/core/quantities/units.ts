/**
 * The units a load may be stated in, and what each means.
 * Masses in grams, volumes in millilitres, percents from 0 to 100.
 */

/** Grams in one international avoirdupois ounce (definition of the pound, 0.45359237 kg, over 16). */
export const GRAMS_PER_OUNCE = 28.349523125;
/** Grams in one international avoirdupois pound. */
export const GRAMS_PER_POUND = 453.59237;
/** Grams in a kilogram. */
export const GRAMS_PER_KILO = 1000;

/** Millilitres in one US customary teaspoon (a sixth of a US fluid ounce). */
const ML_PER_TSP = 4.92892159375;
const ML_PER_TBSP = 14.78676478125;

/** Grams in one of each unit of mass. */
export const MASS_UNITS = { g: 1, kg: GRAMS_PER_KILO, oz: GRAMS_PER_OUNCE, lb: GRAMS_PER_POUND } as const;

/** Millilitres in one of each unit of volume. Plain spoons and cups are US customary. */
export const VOLUME_UNITS = {
  mL: 1,
  L: 1000,
  tsp: ML_PER_TSP,
  tbsp: ML_PER_TBSP,
  cup: 236.5882365,
  flOz: 29.5735295625,
  tspMetric: 5,
  tbspMetric: 15,
  tbspAU: 20,
} as const;

/** Percents: of the fats, of the total liquid, of the fresh pour, of the cured bar. */
export const PERCENT_UNITS = ['%fats', '%liquid', '%pour', '%cured'] as const;

/** Grams for each gram of fats. */
export const MASS_PER_FATS_UNITS = {
  gPerKgFats: 1 / GRAMS_PER_KILO,
  ozPerLbFats: GRAMS_PER_OUNCE / GRAMS_PER_POUND,
} as const;

/** Millilitres for each gram of fats. */
export const VOLUME_PER_FATS_UNITS = {
  tspPerLbFats: ML_PER_TSP / GRAMS_PER_POUND,
  tbspPerLbFats: ML_PER_TBSP / GRAMS_PER_POUND,
} as const;

export type Unit =
  | keyof typeof MASS_UNITS
  | keyof typeof VOLUME_UNITS
  | (typeof PERCENT_UNITS)[number]
  | keyof typeof MASS_PER_FATS_UNITS
  | keyof typeof VOLUME_PER_FATS_UNITS;

/** Every unit, in the order a list of choices shows them. */
export const UNITS: readonly Unit[] = [
  ...(Object.keys(MASS_UNITS) as Unit[]),
  ...(Object.keys(VOLUME_UNITS) as Unit[]),
  ...PERCENT_UNITS,
  ...(Object.keys(MASS_PER_FATS_UNITS) as Unit[]),
  ...(Object.keys(VOLUME_PER_FATS_UNITS) as Unit[]),
];

/** What a unit's value is a multiple of. */
export type UnitBase = 'absolute' | 'fats' | 'liquid' | 'pour' | 'cured';

/**
 * How a value in a unit becomes grams: `value * factor` of the base, times the bulk density (g/mL) where
 * `byVolume`. `absolute` has base 1; the other bases are masses in grams.
 */
export interface UnitRule {
  base: UnitBase;
  factor: number;
  byVolume: boolean;
}

const PER_HUNDRED = 1 / 100;

const PERCENT_BASES: Record<(typeof PERCENT_UNITS)[number], UnitBase> = {
  '%fats': 'fats',
  '%liquid': 'liquid',
  '%pour': 'pour',
  '%cured': 'cured',
};

function buildRules(): ReadonlyMap<string, UnitRule> {
  const rules = new Map<string, UnitRule>();
  const add = (units: Record<string, number>, base: UnitBase, byVolume: boolean) => {
    for (const [unit, factor] of Object.entries(units)) rules.set(unit, { base, factor, byVolume });
  };
  add(MASS_UNITS, 'absolute', false);
  add(VOLUME_UNITS, 'absolute', true);
  add(MASS_PER_FATS_UNITS, 'fats', false);
  add(VOLUME_PER_FATS_UNITS, 'fats', true);
  for (const unit of PERCENT_UNITS) {
    rules.set(unit, { base: PERCENT_BASES[unit], factor: PER_HUNDRED, byVolume: false });
  }
  return rules;
}

const RULES = buildRules();

/** The rule of a unit, or undefined when there is no such unit. */
export function unitRule(unit: string): UnitRule | undefined {
  return RULES.get(unit);
}
