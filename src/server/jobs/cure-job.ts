/** Reckoning the cures of some batches, away from requests. */
import { cure } from '../../core/curing/cure';
import { nextWeighing, type NextWeighing } from '../../core/curing/next-weighing';
import type { Cure, CureOptions, CureWeighing } from '../../core/curing/cure-types';

export interface CureTask {
  weighings: CureWeighing[];
  options: CureOptions;
}

/** Which bar to weigh next, on which day of the cure. */
export function nextBar({ weighings, options, today }: CureTask & { today: number }): NextWeighing | null {
  return nextWeighing(weighings, options, today);
}

/** The cures of some batches, in their order. */
export function cures({ tasks }: { tasks: readonly CureTask[] }): Cure[] {
  return tasks.map(({ weighings, options }) => cure(weighings, options));
}
