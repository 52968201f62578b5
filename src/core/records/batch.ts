/** Batches as screens and server know them. */
import type { Batch, BatchEvent, BatchState } from '../batch/types';
import type { Assessment } from '../formula/answer';
import type { AssessmentRequest, Market } from '../formula/types';
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

/** A batch with all that was written down of it. */
export interface BatchDetail {
  id: string;
  code: string;
  seq: number;
  batch: Batch;
  events: BatchEvent[];
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
  }[];
}
