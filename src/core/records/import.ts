/** Bars that come from a maker's own spreadsheet. */
import type { LoggedBatch } from '../sheets/logged';
import type { Verdict } from '../formula/answer';
import type { Kind } from '../formula/types';
import type { StatedLot } from './cupboard';

export interface ImportedBar {
  name: string;
  verdict: Verdict | null;
  /** Why it cannot be taken; null where it can. */
  fault: string | null;
}

/** A batch of a log as it is taken in: its day is known, and an empty code is made up as for any batch. */
export type TakenBatch = Pick<LoggedBatch, 'code' | 'bars' | 'weighed'> & { day: string };

export interface ImportResult {
  /** 0 where it was only looked at, or a bar has a fault. */
  taken: number;
  /** Batches made of what was weighed. */
  batches?: number;
  bars: ImportedBar[];
}

/** A row of a maker's list of materials: one that is on file or in the library, or a new one; with a lot where it has one. */
export interface ImportedStock {
  /** Row of the sheet, from 1. */
  row: number;
  /** As the sheet names it. */
  name: string;
  /** Id of a material on file or in the library; null for a new one. */
  material: string | null;
  own: { name: string; kind: Kind; inci: string; naohPerGram: number | null } | null;
  supplier: string;
  lot: StatedLot | null;
}

export interface LookedAtStock {
  row: number;
  /** The material it is or would be, by name. */
  title: string;
  /** Whether the cupboard has it, takes it from the library, or has it made. */
  what: 'there' | 'library' | 'new';
  /** Why it cannot be taken; null where it can. */
  fault: string | null;
}

export interface StockResult {
  /** 0 where it was only looked at, or a row has a fault. */
  taken: number;
  rows: LookedAtStock[];
}
