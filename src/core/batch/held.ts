/** A batch that is held for a lot in it: the same words say so and are known again. */
import type { Batch } from './types';

const LONGEST = 400;
const HELD = /^Lot .+ of .+ is held: /;

/**
 * Why a batch is held for a lot.
 *
 * @example heldFor('OL2600', 'Olive oil', 'Smells.') // 'Lot OL2600 of Olive oil is held: Smells.'
 */
export const heldFor = (code: string, name: string, reason: string): string =>
  `Lot ${code} of ${name} is held: ${reason}`.slice(0, LONGEST);

/** The open quarantine of a batch that is held for a lot; undefined where it is for none. */
export const openHold = ({ quarantines }: Pick<Batch, 'quarantines'>) =>
  quarantines.find(({ decision, reason }) => decision === null && HELD.test(reason));
