/** The shape of a rulebook edition. An edition is dated and never changed; what changes is a new file. */
import type { Declarable, Limit, Market } from '../core/formula/types';
import type { Standing } from '../library/types';

/** A limit with how far it can be leant on and the day it was read. */
export interface RuleLimit extends Limit {
  standing: Standing;
  asOf: string;
  /** Why, for advice; or what to watch. */
  note?: string;
}

/** When a market asks for the names of an allergen list. A null date has not been set. */
export interface AllergenList {
  market: Market;
  list: 'first' | 'second';
  thresholdPct: number;
  newFrom: string | null;
  allFrom: string | null;
  source: string;
  standing: Standing;
  asOf: string;
}

/** A name to declare, and the CAS numbers whose sum it stands for. */
export interface Allergen {
  id: string;
  name: string;
  cas: string;
  alsoCas: string[];
  list: 'first' | 'second';
  kind: 'substance' | 'natural';
}

export interface EditionFile {
  edition: string;
  dated: string;
  title: string;
  scentStandard: { name: string; category: string; newestEdition: string; source: string; asOf: string };
  limits: RuleLimit[];
  allergenLists: AllergenList[];
  allergens: Allergen[];
}

export interface Rulebook {
  edition: string;
  dated: string;
  scentStandard: EditionFile['scentStandard'];
  /** Law first, then the craft's advice. */
  limits: readonly RuleLimit[];
  declarables: readonly Declarable[];
  allergens: readonly Allergen[];
  allergenLists: readonly AllergenList[];
}
