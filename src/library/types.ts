/** What the starter library knows of a material beyond what an assessment needs. */
import type { Traits } from '../core/formula/traits';
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

/** Saponification value, milligrams of potassium hydroxide for a gram of fat. */
export interface SaponificationValue {
  lowMgKoh: number;
  typicalMgKoh: number;
  highMgKoh: number;
}

/** Groups the library's materials as the cupboard shows them. */
export type Shelf =
  'fats' | 'liquids' | 'scents' | 'clays' | 'dissolved' | 'botanicals' | 'colourants' | 'fibres';

export interface LibraryMaterial extends Material, Traits {
  shelf: Shelf;
  provenance: Provenance;
  saponificationValue?: SaponificationValue;
  /** Months it keeps, unopened, cool and dark. */
  keepingMonths?: number;
  /** What a maker should know before using it. */
  cautions?: string[];
}
