/**
 * What the sweep's pool and its threads say to each other. Formulas travel as the JSON text the store holds,
 * and rows as JSON text too, which costs a fraction of what cloning as many small objects does.
 */
import type { Declarable, Limit, Market, Material } from '../core/formula/types';

/** What every product of a sweep is held against. */
export interface SweepSetting {
  materials: Material[];
  limits: Limit[];
  declarables: Declarable[];
  markets: Market[];
  onDate: string;
}

/** A product with its formula as the store holds it. */
export interface StoredProduct {
  id: string;
  /** JSON text of a formula. */
  formulaText: string;
}

export type ToWorker = { setting: string } | { sweep: number; chunk: number; products: StoredProduct[] };

export interface FromWorker {
  sweep: number;
  chunk: number;
  rows: string;
}
