/** What a run sheet looks like while it is being followed: targets, what is left of them, and which step is next. */
import type { Batch } from '../../core/batch/types';
import { ALKALI_LINE, LYE_STOCK_LINE, type RunStep, type Weigh } from '../../core/making/run-sheet-types';

/** Check under which it is written down that the rest of the day was scaled, and by how much. */
export const SCALED = 'scaled';

/** One thing to weigh in a step, with what of it is done. */
export interface Wanted extends Weigh {
  /** Grams already weighed towards it. */
  doneG: number;
  isDone: boolean;
  skipped: string | null;
}

/** By how much what is still to come was scaled; 1 where it was not. */
export function scaledBy({ checks }: Batch): number {
  const last = checks.findLast(({ check }) => check === SCALED);
  const factor = Number(last?.value);
  return factor > 0 ? factor : 1;
}

const doneSteps = ({ stepsDone }: Batch) => new Set(stepsDone.map(({ step }) => step));

/**
 * What a step wants weighed. A line that several steps weigh fills them in order: what was weighed of it goes to the
 * first that still lacks some.
 */
export function wantedOf(batch: Batch, step: RunStep): Wanted[] {
  const { sheet, lines } = batch;
  const factor = scaledBy(batch);
  return step.weigh.map((weigh) => {
    const line = lines.find((one) => one.line === weigh.line);
    const ofPortion = (portion: string | null) => portion === weigh.portion || line?.portion !== null;
    let leftG = (line?.weighings ?? [])
      .filter(({ portion }) => ofPortion(portion))
      .reduce((sum, { massG }) => sum + massG, 0);
    for (const earlier of sheet.steps) {
      if (earlier.id === step.id) break;
      for (const one of earlier.weigh)
        if (one.line === weigh.line && (one.portion === weigh.portion || line?.portion !== null))
          leftG -= Math.min(leftG, one.massG);
    }
    const doneG = Math.max(0, leftG);
    // What was weighed as planned stays so; what ran over, and what is still to come, is scaled.
    const isAsPlanned = doneG >= weigh.massG - weigh.underG && doneG <= weigh.massG + weigh.overG;
    const massG = isAsPlanned ? weigh.massG : weigh.massG * factor;
    return {
      ...weigh,
      massG,
      doneG,
      isDone: doneG >= massG - weigh.underG,
      skipped: line?.skipped ?? null,
    };
  });
}

/** Steps that have to be done before a step may be. */
function missingBefore(batch: Batch, { after }: RunStep): RunStep[] {
  const done = doneSteps(batch);
  return batch.sheet.steps.filter(({ id }) => after.includes(id) && !done.has(id));
}

/** The next step to be done; null at the end of the day. */
export function nextStep(batch: Batch): RunStep | null {
  const done = doneSteps(batch);
  return batch.sheet.steps.find(({ id }) => !done.has(id)) ?? null;
}

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

/** Whether so much too much of the lye was weighed that it must not go into the fats as planned. */
export const isLyeOver = ({ line, doneG, massG, overG }: Wanted) =>
  (line === ALKALI_LINE || line === LYE_STOCK_LINE) && doneG > massG + overG;

/** Why a step cannot be marked as done yet, in words; null where it can. */
export function inTheWay(batch: Batch, step: RunStep): string | null {
  const missing = missingBefore(batch, step);
  if (missing.length > 0) return `First: ${missing.map(({ title }) => title).join(', ')}.`;
  const wanted = wantedOf(batch, step);
  if (wanted.some(isLyeOver)) return 'Too much lye: scale what is still to come, or stop.';
  const open = wanted.filter((one) => !one.isDone && one.skipped === null && one.doneG === 0);
  if (open.length > 0)
    return `Weigh ${open.map(({ name }) => name).join(' and ')} first, or leave it out with a reason.`;
  if (step.id === 'split' && !batch.portions) return 'Write down what the split was.';
  if (step.id === 'pour' && !batch.poured) return 'Write down what was poured.';
  return null;
}
