/** What the rack asks of the heat model, away from requests. */
import { paceOf, type Pace } from '../core/heat/pace';
import type { Pour } from '../core/heat/types';

/** How much sooner or later than usual some pours are firm, in their order. */
export function paces({ pours }: { pours: readonly Pour[] }): Pace[][] {
  return pours.map(paceOf);
}
