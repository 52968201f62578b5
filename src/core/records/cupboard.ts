/** The cupboard as screens and server know it. */
import type { TraitMaterial } from '../formula/traits';
import type { MixPart } from '../formula/mix';
import type { Traits } from '../formula/traits';
import type { Kind, Material } from '../formula/types';
import type { Lot } from '../making/cost';
import type { ConditionStand } from '../paperwork/conditions';
import type { WrittenLetter } from '../paperwork/supplier-letter';
import type { PapersStanding } from './papers';

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

/** A material with whatever else is known of it. */
export type KnownMaterial = Material & Traits & { provenance?: Provenance; cautions?: string[] };

/** A bar that uses a material, on a line of its own or within a mix. */
export interface Use {
  product: string;
  name: string;
  /** The mix it is used through, by name; null where it stands on a line of its own. */
  through: string | null;
}

/** The bars that use a material: how many, and the first of them by name. */
export interface Uses {
  count: number;
  some: Use[];
}

export interface CupboardEntry {
  /** As it counts today: with paperwork, mixes resolved. */
  material: KnownMaterial;
  /** As the maker wrote it down, for changing it; a mix has only its name here. */
  written: Material;
  supplier: string | null;
  papers: PapersStanding;
  lots: Lot[];
  mix: MixPart[] | null;
  /** Counts every change; a change names the revision it was made from. */
  revision: number;
  /** How many bars use it. */
  usedIn: number;
  /** What only a paper shows of it, and how that stands, in every market that asks. */
  conditions: ConditionStand[];
  /** Letters to its supplier, newest first. */
  letters: WrittenLetter[];
  /** Whether the starter library knows it, so that it is not wholly the maker's own. */
  isFromLibrary: boolean;
}

/** A line of the cupboard; lists of thousands travel with the page, so that what there is not is left out. */
export interface CupboardRow {
  id: string;
  name: string;
  kind: Kind | 'mix';
  /** Left out where none is named. */
  supplier?: string;
  /** Ingredient names, by which it is found as well. */
  inci: string[];
  /** Grams over all lots; left out where there never was one. */
  stockG?: number;
  /** How many bars use it. */
  usedIn: number;
  /** What is to be minded about it in a word or two each, gravest first, nothing twice; left out where nothing is. */
  signs?: { words: string[]; isGrave: boolean };
}

/** What a maker may state about a material. */
export type StatedMaterial = Omit<TraitMaterial, 'id' | 'madeOf'>;

/** A lot as the maker states it. */
export type StatedLot = Omit<Lot, 'id' | 'material' | 'revision' | 'quarantine'> & {
  quarantine?: string | null;
};

/** The maker's own craft figures: percent by the id of the craft limit they take the place of. */
export type CraftFigures = Record<string, number>;

/** A material as a search finds it. */
export interface FoundMaterial {
  material: Material;
  /** Whether it stands in the maker's own cupboard, or only in the starter library. */
  isOwn: boolean;
}

/** A lot on the shelf as it is counted. */
export interface CountedLot {
  id: string;
  code: string;
  name: string;
  leftG: number;
}
