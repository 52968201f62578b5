/** The shape of a rulebook edition. An edition is dated and never changed; what changes is a new file. */
import type { CraftDemand, Declarable, Limit, Market } from '../core/formula/types';
import type { AskedCondition } from '../core/paperwork/conditions';
import type { Standing } from '../core/records/cupboard';

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
  /** Whether the dates speak of the product or of its units; absent means the product. */
  per?: 'product' | 'unit';
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

/** Which markets let a colour into a cosmetic, under the name the library's parts use. */
export interface ColourEntry {
  name: string;
  english?: string;
  permitted: Partial<Record<Market, boolean>>;
  /** How far each market's word can be leant on; absent is as the source's. */
  standing?: Partial<Record<Market, Standing>>;
  note?: string;
  /** Other names the same colour is bought by. */
  alsoNamed?: string[];
}

/** The most peroxide an oil may hold before it goes into a product. */
export interface PeroxideRule {
  id: string;
  /** Plants whose oils it speaks of, by the first word of their ingredient name. */
  genera: string[];
  constituents: string[];
  mostMmolPerL: number;
  /** Its constituents count where the material is that substance, not where it holds some. */
  asSubstance?: boolean;
  markets: Market[];
  source: string;
  standing: Standing;
  asOf: string;
}

/** What a market asks of a material that only its paper can show, with how far that can be leant on. */
export interface PaperCondition extends AskedCondition {
  standing: Standing;
  asOf: string;
}

export interface EditionFile {
  edition: string;
  dated: string;
  title: string;
  scentStandard: { name: string; category: string; newestEdition: string; source: string; asOf: string };
  limits: RuleLimit[];
  allergenLists: AllergenList[];
  allergens: Allergen[];
  colours: ColourEntry[];
  colourSource: { source: string; standing: Standing; asOf: string };
  peroxides?: PeroxideRule[];
  /** Whether a colour that a market does not let in is a row of that market's verdict. */
  judgesColours?: boolean;
  conditions?: PaperCondition[];
}

/**
 * An edition that is the one before it but for some rows: those that are new or read otherwise, by their ids (colours
 * by their names).
 */
export interface FollowingEdition extends Partial<
  Pick<EditionFile, 'colours' | 'allergens' | 'peroxides' | 'judgesColours' | 'conditions'>
> {
  edition: string;
  dated: string;
  title: string;
  follows: string;
  limits: RuleLimit[];
  /** Ids of peroxide rules and limits that no longer stand. */
  dropped?: string[];
}

/** The craft's usual range for a load, and where it stops helping. */
export interface CraftRow {
  id: string;
  subject: Limit['subject'];
  usualPct: [number, number];
  maxPct: number;
  basis: Limit['basis'];
  reason: string;
}

export interface CraftFile {
  asOf: string;
  source: string;
  limits: CraftRow[];
  demands: CraftDemand[];
  /** Where a scent without a certificate would roughly stand. */
  orientation?: (Pick<Limit, 'id' | 'subject' | 'maxPct' | 'basis'> & { source?: string })[];
  orientationSource?: string;
}

/** The craft's advice of an edition that is the one before it but for some rows, by their ids. */
export interface FollowingCraft extends Required<Pick<CraftFile, 'asOf' | 'limits' | 'orientation'>> {
  follows: string;
  /** Of the bearings that are new. */
  orientationSource: string;
}

export interface CraftLimit extends RuleLimit {
  /** Null where makers have no usual range. */
  usualPct: [number, number] | null;
}

export interface Rulebook {
  title: string;
  edition: string;
  dated: string;
  scentStandard: EditionFile['scentStandard'];
  /** What binds. */
  limits: readonly RuleLimit[];
  /** What makers advise; a maker's own figure takes the place of one by its id. */
  craft: readonly CraftLimit[];
  demands: readonly CraftDemand[];
  colours: readonly ColourEntry[];
  colourSource: EditionFile['colourSource'];
  declarables: readonly Declarable[];
  allergens: readonly Allergen[];
  allergenLists: readonly AllergenList[];
  peroxides: readonly PeroxideRule[];
  conditions: readonly PaperCondition[];
}
