/** The door of a maker's own craft figure; null takes it back. */
import { OrNull, Percent } from './fields';

export class CraftFigureDoor {
  @OrNull() @Percent() maxPct!: number | null;
}

export interface CraftFigure {
  maxPct: number | null;
}
