/** What goes on each bar, as screens and server know it. */
import type { EvidenceNote } from '../claims/evidence';
import type { Fact } from '../claims/facts';
import type { OwnPhrase } from '../claims/types';
import type { Country, LabelLanguage } from '../labels/languages';
import type { Assessment, School, Verdict } from '../formula/answer';
import type { Formula, Market, Material } from '../formula/types';
import type { CardChoice } from '../labels/card';
import type { LabelContent, Words, Durability } from '../labels/content';
import type { LabelFormat } from '../labels/formats';
import type { Face } from '../labels/layout';
import type { ConditionStand } from '../paperwork/conditions';
import type { Regime } from '../labels/standing';
import type { Product, WorkingVersion } from './product';

/** Who answers for the product, as a label names them. */
export interface Maker {
  name: string;
  addressLines: string[];
  /** Who answers in a market that asks for somebody established there; elsewhere the maker does. */
  elsewhere?: { market: Market; name: string; addressLines: string[] }[];
}

/** A bar's wrap: its words, looks and sizes; one for all markets, with a school and a shape for each. */
export interface Wrap {
  description: string;
  back: string;
  identity: Words;
  use: Words;
  cautions: Words;
  markets: Partial<Record<Market, { school: School; format: LabelFormat }>>;
  look: { paper: string; ink: string; nameFace: Face; logo: boolean };
  /** `page`: a square code that leads to the page of the batch. */
  barcode: 'none' | 'gtin' | 'batch' | 'page';
  gtin: string;
  /** Weights of single cured bars, grams. */
  weighedG: number[];
  netMassG: number | null;
  batchCode: string;
  durability: Durability | null;
  /** Items of the checklists that the maker ticked: "EU file". */
  ticked: string[];
  /** Where the evidence for its claims is; absent in wraps kept before. */
  evidence?: EvidenceNote[];
  /** What the pages of its batches show; absent before anything was chosen. */
  card?: CardChoice;
}

export interface StoredWrap {
  revision: number;
  savedAt: string;
  wrap: Wrap;
}

/** A label as it was issued. Nothing of it changes afterwards. */
export interface IssuedLabel {
  id: string;
  productId: string;
  market: Market;
  issuedOn: string;
  product: string;
  content: LabelContent;
  school: School;
  regime: Regime;
  format: LabelFormat;
  netMassG: number;
  batchCode: string;
  /** The country it was made for; absent for all that the house speaks to. */
  country?: Country | null;
  formula: Formula;
  formulaRevision: number;
  /** The papers that counted for the materials in it. */
  papers: { material: string; number: string; issuer: string; issuedOn: string }[];
  rulebookEdition: string;
  verdict: Verdict;
}

/** What the wrap's screen needs; claims and checklists follow from it on the spot. */
/** In the place of a batch: the label of the formula, a draft. */
export const DRAFT = 'draft';

export interface WrapData {
  product: Product;
  version: Pick<WorkingVersion, 'revision' | 'formula'>;
  stored: StoredWrap;
  assessment: Assessment;
  materials: Material[];
  /** What only papers show of its materials, in the markets it is sold in. */
  conditions: ConditionStand[];
  /** What the formula says of vegan, unscented and the like. */
  facts: Fact[];
  maker: Maker | null;
  hasLogo: boolean;
  /** Where the page of the batch stands, as the maker said; null where nothing is said, or for the formula. */
  cardAddress: string | null;
  /** What a bar is sold for, as it is said; empty where nothing is. */
  priceSaid: string;
  predictedBarG: number;
  proposedCautions: Required<Words>;
  /** What labels in the EU speak; none for whatever words are given. */
  labelLanguages: LabelLanguage[];
  /** Countries that labels in the EU are made for. */
  labelCountries: Country[];
  /** Phrases the maker added to those that ship, and how often they were changed. */
  ownPhrases: OwnPhrase[];
  phrasesRevision: number;
  /** The last of the labels issued, newest first, and how many there are in all. */
  issued: (IssuedLabel & { differs: string[] })[];
  issuedCount: number;
  /** The batch the label is made for, with where it reads otherwise than the formula's; null for the formula's. */
  batch: {
    id: string;
    code: string;
    differs: string[];
    netMassG: number;
    lightestG: number | null;
    /** The last month that its label says, YYYY-MM; null where it says none. */
    endsOn: string | null;
  } | null;
  /** Poured batches that a label can be made for, with their good bars, and whether one waits in quarantine. */
  batches: { id: string; code: string; bars: number; isQuarantined: boolean }[];
  /** Whether a label printer is at hand. */
  hasPrinter: boolean;
  onDate: string;
  rulebookEdition: string;
}
