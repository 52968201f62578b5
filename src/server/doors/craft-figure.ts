/** The door of a maker's own craft figure; null takes it back. */
import { Optional, Percent } from './fields';

export class CraftFigureDoor {
  @Optional() @Percent() maxPct?: number | null;
}

export interface CraftFigure {
  maxPct?: number | null;
}
