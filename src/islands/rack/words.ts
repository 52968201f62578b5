/** Words of the rack. */
import type { RackTask, Urgency } from '../../core/curing/rack';

export const URGENCY_WORDS: Record<Urgency, string> = {
  missed: 'Missed',
  closing: 'Nearly missed',
  late: 'Late',
  open: 'Now',
  later: 'Later',
};

export const TASK_WORDS: Record<RackTask['kind'], string> = {
  cut: 'Cut',
  turn: 'Turn',
  weigh: 'Weigh',
  check: 'Check',
  release: 'Release',
  decide: 'Decide',
};

/** A day's number for reading. */
export const days = (value: number) => `${Math.round(value)} days`;
