/** Batches as screens and server know them. */
import type { Batch, BatchEvent, BatchState, REST_WAYS, TEMPERATURES_OF } from '../batch/types';
import type { Assessment, Verdict } from '../formula/answer';
import type { AssessmentRequest, Market } from '../formula/types';
import type { Lot } from '../making/cost';
import type { Mould } from '../making/size';
import type { RunSheet } from '../making/run-sheet-types';

/** How a batch stands, without its events. */
export interface BatchSummary {
  id: string;
  code: string;
  seq: number;
  product: string;
  productName: string;
  startedAt: string;
  startedBy: string | null;
  pouredAt: string | null;
  cutAt: string | null;
  state: BatchState;
  isQuarantined: boolean;
  bars: Batch['bars'];
}

/** How a bar was poured the last time. */
export interface LastPour {
  code: string;
  kind: 'bars' | 'fats' | 'mould';
  /** Bars or grams of fats, as `kind` says; of moulds, how many in all. */
  size: number;
  /** The moulds that were filled; empty where the size was by bars or fats. */
  moulds: { id: string; count: number }[];
  /** Lye stock made beforehand, percent; null for none. */
  concentrationPct: number | null;
  /** Whether part of the alkali was weighed dry beside the stock. */
  restDry: boolean;
  /** Whether the stock was taken from a lot of its own. */
  isMade: boolean;
  /** The mix of fats that was drawn from; null for none. */
  bucket: string | null;
  by: string | null;
  /** The last of each that was measured, °C. */
  temperatures: { of: (typeof TEMPERATURES_OF)[number]; c: number }[];
  rested: (typeof REST_WAYS)[number] | null;
}

/** What was made beforehand and can be drawn from on the day. */
export interface MadeBeforehand {
  stocks: { id: string; code: string; strengthPct: number; leftG: number }[];
  /** Mixes of fats of which some is left. */
  buckets: { id: string; name: string; freeG: number }[];
}

/** A batch with all that was written down of it. */
export interface BatchDetail {
  id: string;
  code: string;
  seq: number;
  batch: Batch;
  events: readonly BatchEvent[];
  sheet: RunSheet;
}

/** What was weighed, assessed: under the papers and rules of the day it was poured, and of today. */
export interface BatchAssessment {
  onDate: string;
  request: AssessmentRequest;
  assessment: Assessment;
  today: { onDate: string; request: AssessmentRequest; assessment: Assessment };
}

/** Where lots went and bars came from. */
export interface Trace {
  lots: {
    id: string;
    code: string;
    material: string;
    name: string;
    supplier: string;
    takenG: number;
    leftG: number;
    quarantine: string | null;
    /** The batch it was made from; null for what was bought. */
    ofBatch: string | null;
    /** The lots it was made of, grams of each; empty for what was bought or is of a batch. */
    madeOf: { lot: string; code: string; massG: number }[];
  }[];
  batches: {
    id: string;
    code: string;
    product: string;
    productName: string;
    state: BatchState;
    isQuarantined: boolean;
    /** What of the lots went in: grams by lot and portion; null is the whole batter. */
    drawn: { lot: string; line: string; portion: string | null; massG: number }[];
    bars: Batch['bars'];
    gone: Batch['moved'];
    labels: { id: string; market: Market; issuedOn: string; netMassG: number }[];
    complaints: { all: number; open: number };
  }[];
}

/** A note of an earlier batch for whoever pours the bar next. */
export interface NextTimeNote {
  batch: string;
  code: string;
  at: string;
  by: string | null;
  text: string;
}

/** What a pour wants of one material, and what speaks against it. */
export interface Needed {
  material: string;
  name: string;
  neededG: number;
  /** What lots that nothing speaks against hold. */
  freeG: number;
  warnings: string[];
}

/** A pour before it is begun: its sheet, what it wants, and how it stands against the limits as planned. */
export interface PourPlan {
  sheet: RunSheet;
  needed: Needed[];
  /** What was found out of earlier batches of this bar. */
  notes: NextTimeNote[];
  verdict: Verdict | null;
}

/** Lots by material as they are now, with the events of the batch up to a place drawn. */
export interface BatchLots {
  seq: number;
  lots: Record<string, Lot[]>;
}

/** What the bench needs for one batch. */
export interface BenchData {
  detail: BatchDetail;
  productName: string;
  markets: Market[];
  /** Lots by material. */
  lots: Record<string, Lot[]>;
  moulds: Mould[];
  /** Smallest step of the scale's display, grams. */
  readabilityG: number;
  /** What may be added besides. */
  materials: { id: string; name: string }[];
}
