/** The rack as screens and server know it. */
import type { Cure, Interval } from '../curing/cure-types';
import type { NetWeight } from '../curing/net';
import type { RackTask } from '../curing/rack';
import type { CutWindow } from '../curing/window';
import type { ReleaseCheck } from '../curing/batch-cure';
import type { Mould } from '../making/size';
import type { Market } from '../formula/types';
import type { BatchDetail, BatchSummary } from './batch';

/** How much of what a bar loses in all it has still to lose, 0 to 1, and the day it is ready. */
export interface Drying {
  leftShare: number;
  /** From weighings; else from the formula's prediction. */
  isMeasured: boolean;
  readyOnDay: Interval | null;
  settled: boolean;
}

export interface RackBatch extends BatchSummary {
  ageDays: number;
  tasks: RackTask[];
  window: CutWindow | null;
  drying: Drying | null;
}

/** The maker's own days: how long a bar cures at least, and how long from the pour to sale as a rule. */
export interface CuringDays {
  least: number;
  usual: number;
}

export interface RackData {
  at: string;
  batches: RackBatch[];
  days: CuringDays;
  /** Of the days. */
  revision: number;
}

/** One batch on the rack, with all that its page shows. */
export interface CureData {
  detail: BatchDetail;
  productName: string;
  markets: Market[];
  at: string;
  ageDays: number;
  days: CuringDays;
  moulds: Mould[];
  window: CutWindow | null;
  cure: Cure;
  /** Cured over poured mass as the formula has it now, and what it was predicted to be. */
  predictedRatio: number | null;
  tasks: RackTask[];
  checks: ReleaseCheck[];
  /** What stands in the way of a release. */
  against: string[];
  /** The lightest settled bar, grams, and how it is known; null where none is. */
  lightestG: number | null;
  settledBy: 'weight' | 'curve' | null;
  /** Smallest step of the scale at hand, grams. */
  readabilityG: number;
  net: { market: Market; net: NetWeight }[];
  labels: { id: string; market: Market; issuedOn: string; netMassG: number; printed: number }[];
  photos: { id: string; at: string; note: string }[];
  /** Complaints and unwanted effects on file of it, and how many of them are open. */
  complaints: { all: number; open: number };
}

/** Bars of a batch that can be sold. */
export interface StockRow {
  batch: string;
  code: string;
  productName: string;
  left: number;
  markets: Market[];
}
