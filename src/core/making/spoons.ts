/** Spoons as they are in the formula: so many of a material, about so many grams. */
import { massAt, type Weights } from '../quantities/say';
import type { TraitMaterial } from '../formula/traits';
import type { Measure } from '../formula/types';
import { VOLUME_UNITS, type Unit } from '../quantities/units';
import type { Load } from './roles';

/** Below so many grams a step is told to the tenth, above to the gram. */
const FINE_BELOW_G = 50;
const [FINE_G, COARSE_G] = [0.1, 1];

/**
 * A mass as it is read off the scale on the day, in what the house weighs in; `stepG` where it counts to more than usual.
 * A plain text: its blanks are plain.
 *
 * @example weightSaid(34.25, 'g') // '34.3 g'
 * @example weightSaid(139.94, 'g', 0.1) // '139.9 g'
 */
export const weightSaid = (
  massG: number,
  weights: Weights,
  stepG = massG < FINE_BELOW_G ? FINE_G : COARSE_G,
): string => massAt(massG, stepG, weights).replaceAll('\u00a0', ' ');

export type SpoonUnit = keyof typeof VOLUME_UNITS;

/** Nobody holds a finer part of a spoon than an eighth. */
const PARTS = 8;
const FRACTIONS: readonly (readonly [number, string])[] = [
  [1, '⅛'],
  [2, '¼'],
  [3, '⅜'],
  [4, '½'],
  [5, '⅝'],
  [6, '¾'],
  [7, '⅞'],
];

const NAMES: Partial<Record<SpoonUnit, readonly [one: string, many: string]>> = {
  tsp: ['teaspoon', 'teaspoons'],
  tspMetric: ['teaspoon of 5 mL', 'teaspoons of 5 mL'],
  tbsp: ['tablespoon', 'tablespoons'],
  tbspMetric: ['tablespoon of 15 mL', 'tablespoons of 15 mL'],
  tbspAU: ['tablespoon of 20 mL', 'tablespoons of 20 mL'],
  cup: ['cup', 'cups'],
};

/** What several of a spoon are called. */
export const spoonName = (unit: SpoonUnit): string => NAMES[unit]?.[1] ?? unit;

/** Whether a unit is one of spoons or cups. */
export const isSpoon = (unit: string): unit is SpoonUnit => Object.hasOwn(NAMES, unit);

/** Units of spoons for each pound of fats, and the spoon that is meant. */
const PER_FATS: Partial<Record<Unit, SpoonUnit>> = { tspPerLbFats: 'tsp', tbspPerLbFats: 'tbsp' };

/** The spoon that an amount is counted in; null where it is none. */
export function spoonOf(unit: Unit): SpoonUnit | null {
  return isSpoon(unit) ? unit : (PER_FATS[unit] ?? null);
}

/**
 * A count of spoons for reading, to the eighth.
 *
 * @example spoonsSaid(1.5, 'tsp', 'spoon') // '1½ level teaspoons'
 */
export function spoonsSaid(count: number, unit: SpoonUnit, how: Measure): string {
  const eighths = Math.max(1, Math.round(count * PARTS));
  const [whole, rest] = [Math.floor(eighths / PARTS), eighths % PARTS];
  const part = FRACTIONS.find(([of]) => of === rest)?.[1] ?? '';
  const [one, many] = NAMES[unit] ?? [unit, unit];
  const level = how === 'heaped' ? 'heaped ' : how === 'eye' ? '' : 'level ';
  return `${whole > 0 ? whole : ''}${part} ${level}${eighths > PARTS ? many : one}`;
}

/** Grams of one spoon of a material; null where what a millilitre weighs is not on file. */
export function gramsPerSpoon(
  { bulkDensity, density }: Pick<TraitMaterial, 'bulkDensity' | 'density'>,
  unit: SpoonUnit,
): number | null {
  const gPerMl = bulkDensity ?? density ?? null;
  return gPerMl === null ? null : gPerMl * VOLUME_UNITS[unit];
}

const BY_SPOON: ReadonlySet<Measure> = new Set(['spoon', 'heaped', 'eye']);

/** How a load that is spooned in the formula is taken; null for one that is weighed. */
export function spoonWords(load: Load, massG: number, weights: Weights): string | null {
  const { line, material } = load;
  const how = line.measuredBy ?? 'scale';
  const unit = spoonOf(line.amount.unit);
  const each = unit && gramsPerSpoon(material, unit);
  if (!unit || !each || !BY_SPOON.has(how)) return null;
  const { value, unit: stated } = line.amount;
  const count = isSpoon(stated) ? (value * massG) / load.massG : massG / each;
  const said = spoonsSaid(count, unit, how);
  return `Take ${said} of ${material.name} (about ${weightSaid(massG, weights)}; weigh it to clear the doubt).`;
}
