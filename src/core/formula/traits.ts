/** How a material behaves in a bar, beyond what an assessment reckons with; all of it optional. */
import type { Material } from './types';

export type Origin = 'plant' | 'animal' | 'mineral' | 'synthetic' | 'marine' | 'fermented';

/** What a claim of being free of something looks for. `mayPalm` is often made from palm; only the supplier can tell. */
export type Food = 'milk' | 'nut' | 'gluten' | 'palm' | 'mayPalm';

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
  /** Known to speed the batter. */
  speeds?: boolean;
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
  concerns?: ('sun' | 'cooling' | 'pregnancy' | 'children' | 'oxidises')[];
}

export type TraitMaterial = Material & Traits;
