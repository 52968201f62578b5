/** Which kinds of materials are scents: they want a limit of their own, and are left off what is sold unscented. */
import type { Kind } from './types';

const IS_SCENT: Record<Kind, boolean> = {
  fat: false,
  wax: false,
  alkali: false,
  liquid: false,
  milk: false,
  fragrance: true,
  essentialOil: true,
  isolate: true,
  clay: false,
  salt: false,
  sugar: false,
  botanical: false,
  colourant: false,
  exfoliant: false,
  fibre: false,
  acid: false,
  lactate: false,
  other: false,
};

/**
 * Whether a material is a scent.
 *
 * @example isScent({ kind: 'isolate' }) // true
 */
export const isScent = ({ kind }: { kind: Kind }): boolean => IS_SCENT[kind];
