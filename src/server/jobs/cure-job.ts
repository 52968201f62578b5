/** Reckoning the cures of some batches, away from requests. */
import { cure } from '../../core/curing/cure';
import type { Cure, CureOptions, CureWeighing } from '../../core/curing/cure-types';

export interface CureTask {
  weighings: CureWeighing[];
  options: CureOptions;
}

/** The cures of some batches, in their order. */
export function cures({ tasks }: { tasks: readonly CureTask[] }): Cure[] {
  return tasks.map(({ weighings, options }) => cure(weighings, options));
}
