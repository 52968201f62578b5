/** Bars that come from a maker's own spreadsheet. */
import type { Verdict } from '../formula/answer';

export interface ImportedBar {
  name: string;
  verdict: Verdict | null;
  /** Why it cannot be taken; null where it can. */
  fault: string | null;
}

export interface ImportResult {
  /** 0 where it was only looked at, or a bar has a fault. */
  taken: number;
  bars: ImportedBar[];
}
