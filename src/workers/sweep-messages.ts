/**
 * What the sweep's pool and its threads say to each other. Products and rows travel as JSON text, which costs
 * a fraction of what cloning as many small objects does.
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

export type ToWorker = { setting: string } | { sweep: number; chunk: number; products: string };

export interface FromWorker {
  sweep: number;
  chunk: number;
  rows: string;
}
