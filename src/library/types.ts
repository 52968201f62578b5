/** What the starter library knows of a material beyond what an assessment needs. */
import type { Traits } from '../core/formula/traits';
import type { Material } from '../core/formula/types';
import type { Provenance } from '../core/records/cupboard';

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
  /** What suppliers and makers call it besides. */
  alsoNamed?: string[];
  /** What a maker should know before using it. */
  cautions?: string[];
}
