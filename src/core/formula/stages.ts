/** When a material of a kind usually goes in. */
import type { Kind, Stage } from './types';

export const USUAL_STAGE: Record<Kind, Stage> = {
  fat: 'fats',
  wax: 'fats',
  // The lye of a formula is no line; what stands as one is told and goes where it can.
  alkali: 'trace',
  liquid: 'liquid',
  milk: 'liquid',
  fragrance: 'trace',
  essentialOil: 'trace',
  isolate: 'trace',
  clay: 'intoFats',
  salt: 'trace',
  sugar: 'trace',
  botanical: 'trace',
  colourant: 'trace',
  exfoliant: 'trace',
  fibre: 'lye',
  acid: 'lye',
  lactate: 'lye',
  other: 'trace',
};
