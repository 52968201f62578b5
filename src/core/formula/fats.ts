/** Which kinds of materials are fats: what takes up lye as the body of the batter, waxes included. */
import type { Kind } from './types';

/**
 * Whether a material is a fat or a wax.
 *
 * @example isFatty({ kind: 'wax' }) // true
 */
export const isFatty = ({ kind }: { kind: Kind }): boolean => kind === 'fat' || kind === 'wax';
