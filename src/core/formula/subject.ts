/** What a rule speaks of, where it is more than one thing. */
import type { Subject } from './types';

/**
 * The ids a subject stands for. Constituents that a rule holds to one figure together are written in one id with a plus
 * between them; every other subject stands for itself.
 *
 * @example membersOf({ type: 'constituent', id: 'a+b' }) // ['a', 'b']
 */
export function membersOf({ type, id }: Subject): string[] {
  return type === 'constituent' ? id.split('+') : [id];
}
