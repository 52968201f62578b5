/** When a material of a kind usually goes in; at trace where nothing is said. */
import type { Kind, Stage } from './types';

export const USUAL_STAGE: Partial<Record<Kind, Stage>> = {
  fat: 'fats',
  wax: 'fats',
  liquid: 'liquid',
  milk: 'liquid',
  acid: 'lye',
  lactate: 'lye',
  clay: 'intoFats',
  fibre: 'lye',
};
