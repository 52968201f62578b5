/** How a material behaves in a bar, beyond what an assessment reckons with; all of it optional. */
import type { Material } from './types';

export const ORIGINS = ['plant', 'animal', 'mineral', 'synthetic', 'marine', 'fermented'] as const;
export type Origin = (typeof ORIGINS)[number];

export const CONCERNS = ['sun', 'cooling', 'pregnancy', 'children', 'oxidises'] as const;
export type Concern = (typeof CONCERNS)[number];

/**
 * What a claim of being free of something looks for. What is often made from palm, with milk or from animals is told
 * by its supplier alone (`mayPalm`, `mayMilk`, `mayAnimal`).
 */
export const FOODS = ['milk', 'nut', 'gluten', 'palm', 'mayPalm', 'mayMilk', 'mayAnimal'] as const;
export type Food = (typeof FOODS)[number];

/** How a powder, seed or shell feels and behaves in a bar. */
export interface Behaviour {
  /** Size of the grains, micrometres, low and high. */
  grainUm?: [number, number];
  /** Whether the grains have edges that scratch. */
  sharp?: boolean;
  /** What colour it gives, and what becomes of that. */
  colour?: string;
  stains?: boolean;
  swells?: boolean;
  /** Liquid or fat needed to wet it, times its own weight. */
  wettingTimes?: [number, number];
  /** Salts that draw water from the air. */
  drawsWater?: boolean;
  /** Whether it speeds the batter; left out where that is not known. */
  speeds?: boolean;
  /** Whether it makes the batter rice: break into grains and oil; left out where that is not known. */
  rices?: boolean;
  /** Sugars that heat the batter, percent of the material. */
  sugarPct?: number;
}

/** What the outlook reads of a material. */
export interface Traits {
  origin?: Origin;
  /** Foods it comes from; where this is not stated, its names are read. */
  foods?: Food[];
  /** How readily it clogs pores, informal, 0 to 5. */
  poreClogging?: number;
  behaviour?: Behaviour;
  concerns?: Concern[];
  /** What its user has to mind, a sentence each. */
  cautions?: string[];
}

export type TraitMaterial = Material & Traits;

/** A fragrance is its maker's own composition: how it behaves is known once somebody has said it, and not before. */
export const isUnknown = ({ kind, behaviour }: TraitMaterial): boolean =>
  kind === 'fragrance' && behaviour?.speeds === undefined && behaviour?.rices === undefined;
