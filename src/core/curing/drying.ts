/** How far a batch has dried. */
import type { Batch, BatchStanding } from '../batch/types';
import type { Drying } from '../records/rack';
import { daysSince } from './batch-cure';
import type { Cure } from './cure-types';

/** Days in which an ordinary bar has lost all but 1/e of what it loses (craft), where nothing was weighed. */
const USUAL_DAYS = 10;

/** Days since the pour; a tablet's clock may run ahead of this one. */
export const ageOf = ({ poured, startedAt }: Pick<Batch, 'poured' | 'startedAt'>, at: string) =>
  Math.max(0, daysSince(poured?.at ?? startedAt, at));

/** How much of what its bars lose a batch has still to lose at a moment (ISO 8601), by its cure or as is usual; null before the cut. */
export function dryingOf(batch: BatchStanding, at: string, cure: Cure | null): Drying | null {
  if (!batch.cut || !batch.poured) return null;
  const ageDays = ageOf(batch, at);
  const plain = {
    leftShare: Math.exp(-ageDays / USUAL_DAYS),
    isMeasured: false,
    readyOnDay: null,
    settled: false,
  };
  if (!cure?.massRatio || cure.curve.length === 0) return plain;
  const [first] = cure.curve;
  const settled = first!.likelyG * cure.massRatio.typical;
  const now = cure.curve.find(({ day }) => day >= ageDays)?.likelyG ?? cure.curve.at(-1)!.likelyG;
  const leftShare = Math.min(1, Math.max(0, (now - settled) / (first!.likelyG - settled)));
  return { leftShare, isMeasured: true, readyOnDay: cure.readyOnDay, settled: cure.settled };
}
