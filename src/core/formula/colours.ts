/** Which parts of a material colour. */
import type { InciPart, Material } from './types';

/**
 * Whether a part of a material is there for its colour: it is said so, or the material is a colourant and it no water.
 *
 * @example isColourPart({ kind: 'colourant' }, { role: 'ingredient' }) // true
 */
export const isColourPart = ({ kind }: Pick<Material, 'kind'>, { role }: Pick<InciPart, 'role'>): boolean =>
  role === 'colourant' || (kind === 'colourant' && role !== 'water');
