/** What was measured of pours in a mould, as screens and server know it. */
import type { Measured } from '../heat/calibrate';

export interface MouldWarmth {
  /** Newest first. */
  measured: (Measured & { batch: string; code: string })[];
}
