/** The words of a run sheet while it is being followed. */
import type { Batch } from '../../core/batch/types';
import { isLyeOver, missingBefore, shortOf, wantedOf } from '../../core/batch/targets';
import type { RunStep } from '../../core/making/run-sheet-types';
import { gramsAt } from '../../ui/words';

export const PLACE_WORDS: Record<RunStep['place'], string> = {
  gear: 'Before you begin',
  premix: 'Premixes',
  lye: 'Lye',
  fats: 'Fats',
  join: 'Batter',
  portion: 'Portions',
  mould: 'Mould',
  rest: 'Rest',
};

/** Why a step cannot be marked as done yet, in words; null where it can. */
export function inTheWay(batch: Batch, step: RunStep): string | null {
  const missing = missingBefore(batch, step);
  if (missing.length > 0) return `First: ${missing.map(({ title }) => title).join(', ')}.`;
  const wanted = wantedOf(batch, step);
  if (wanted.some(isLyeOver)) return 'Too much lye: scale the rest with it, or stop.';
  const short = shortOf(batch, step);
  if (short.length > 0)
    return `Top up ${short.map(({ name, massG, doneG }) => `${name} by ${gramsAt(massG - doneG, 0.1)}`).join(' and ')}.`;
  const open = wanted.filter((one) => !one.isDone && one.skipped === null && one.doneG === 0);
  if (open.length > 0)
    return `Weigh ${open.map(({ name }) => name).join(' and ')} first, or leave it out with a reason.`;
  if (step.id === 'split' && !batch.portions) return 'Write down what the split was.';
  if (step.id === 'pour' && !batch.poured) return 'Write down what was poured.';
  return null;
}
