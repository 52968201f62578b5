/** What the starter library knows of a material beyond what an assessment needs. */
import type { Material } from '../core/formula/types';

/**
 * How far a figure can be leant on: `published` stands in a named text, `typical` is a usual value to be
 * confirmed by the supplier's paper, `craft` is advice among makers.
 */
export type Standing = 'published' | 'typical' | 'craft';

/** Where a figure comes from, in words. No supplier is named. */
export interface Provenance {
  standing: Standing;
  source: string;
  asOf: string;
}

export type Origin = 'plant' | 'animal' | 'mineral' | 'synthetic' | 'marine' | 'fermented';

/** Saponification value, milligrams of potassium hydroxide for a gram of fat. */
export interface SaponificationValue {
  lowMgKoh: number;
  typicalMgKoh: number;
  highMgKoh: number;
}

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
  /** Sugars that heat the batter, percent of the material. */
  sugarPct?: number;
}

/** Groups the library's materials as the cupboard shows them. */
export type Shelf =
  'fats' | 'liquids' | 'scents' | 'clays' | 'dissolved' | 'botanicals' | 'colourants' | 'fibres';

export interface LibraryMaterial extends Material {
  shelf: Shelf;
  origin: Origin;
  provenance: Provenance;
  saponificationValue?: SaponificationValue;
  /** How readily it clogs pores, informal, 0 to 5. */
  poreClogging?: number;
  /** Months it keeps, unopened, cool and dark. */
  keepingMonths?: number;
  behaviour?: Behaviour;
  /** What a maker should know before using it. */
  cautions?: string[];
  /** Iodine-like warnings apart: sun, cooling, pregnancy, child. */
  concerns?: ('sun' | 'cooling' | 'pregnancy' | 'children' | 'oxidises')[];
}
