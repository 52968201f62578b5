/** Bench scales: what any of them does, and which one is at hand. */
import type { Reading } from '../../core/weighing/follow';
import { StandInScale } from './scale-stand-in';
import { TcpScale } from './scale-tcp';

/** Anything that gives readings, ten a second, to whoever listens. */
export interface Scale {
  /** Smallest step of the display, grams. */
  readonly readabilityG: number;
  /** Listens; answers how to stop. */
  listen(hear: (reading: Reading) => void): () => void;
}

let scale: Scale | null = null;

/** The scale of this bench: a real one's bridge where `PROPORTIA_SCALE` names it, else the stand-in. */
export function benchScale(): Scale {
  const address = process.env.PROPORTIA_SCALE;
  scale ??= address ? new TcpScale(address) : new StandInScale();
  return scale;
}

/** The stand-in, or null where a real scale is at hand. */
export function standInScale(): StandInScale | null {
  const at = benchScale();
  return at instanceof StandInScale ? at : null;
}
