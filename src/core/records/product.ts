/** Bars as screens and server know them. */
import type { School } from '../formula/answer';
import type { Result } from '../assess';
import type { Formula, Market, Material, Stored } from '../formula/types';
import type { Mould } from '../making/size';
import type { PageOf } from './page';
import type { ConditionStand } from '../paperwork/conditions';
import type { PapersStanding } from './papers';

/** A product as the range lists it and the label names it. */
/** A lye figure that somebody found again by another way. */
export interface LyeCheck {
  /** Alkali to be weighed when it was checked, and the figure of the second way, grams. */
  alkaliG: number;
  secondG: number;
  /** Of the formula that was checked. */
  revision: number;
  on: string;
  by: string | null;
}

export interface Product {
  id: string;
  name: string;
  /** What it is, in plain words, for the label. */
  identity: string;
  /** One line for the maker. */
  note: string;
  /** What the maker groups it under; empty for nothing. */
  collection?: string;
  markets: Market[];
  /** Net weight on the label, grams; null until the maker states it. */
  netMassG: number | null;
  /** Code of the batch a label is made for. */
  batchCode: string;
  firstPlacedOn: Partial<Record<Market, string>>;
  /** The lye as it was checked by a second way; left out where it never was. */
  lyeCheck?: LyeCheck;
  /** Counts every change of these details; a change names the revision it was made from. */
  revision: number;
  /** The day it was put away; null while it stands in the range. */
  putAwayOn: string | null;
}

/** What a maker may change about a product besides its formula. */
export type ProductDetails = Pick<
  Product,
  'name' | 'identity' | 'note' | 'collection' | 'markets' | 'netMassG' | 'batchCode' | 'firstPlacedOn'
>;

export interface WorkingVersion {
  number: number;
  name: string | null;
  /** Counts every save; a save must name the revision it was made from. */
  revision: number;
  savedAt: string;
  formula: Formula;
}

export interface ProductWithFormula {
  product: Product;
  version: WorkingVersion;
}

/** A page of an overview. */
export interface PageOfBars extends PageOf {
  putAway: boolean;
}

/** What the worktable needs to reckon by itself: the formula, its materials and the rules in force. */
export interface WorktableData {
  product: Product;
  version: WorkingVersion;
  materials: Material[];
  rules: Pick<Stored, 'limits' | 'declarables' | 'demands'>;
  rulebookEdition: string;
  onDate: string;
  /** Which papers count, by material. */
  /** The school of the list that stands on the label, by market. */
  schools: Record<Market, School>;
  /** What age does to the bottle that would be taken, by material; only of those where it does something. */
  oldBottles: Record<string, string>;
  papers: Record<string, PapersStanding>;
  /** What only papers show of its materials, in the markets it is sold in. */
  conditions: ConditionStand[];
  /** Price of a gram, by material; only of those that have one. */
  prices: Record<string, number>;
  currency: string;
  moulds: Mould[];
  mouldsRevision: number;
}

/** One side of a comparison: a bar as it is, or one of its kept versions. */
export interface ComparedSide {
  product: Product;
  /** The version's name; null for the formula as it is now. */
  version: string | null;
  number: number;
  formula: Formula;
  result: Result;
  materials: Material[];
}

/** A bar with the versions kept of it, for choosing. */
export interface Comparable {
  id: string;
  name: string;
  versions: { number: number; name: string }[];
}
