/** A run sheet while it is being followed: targets, what is left of them, and which step is next. */
import type { Batch, BatchLine, Weighing } from './types';
import { canGrow } from './joined';
import { groupBy } from '../group';
import { ALKALI_LINE, LYE_STOCK_LINE, type RunStep, type Weigh } from '../making/run-sheet-types';

/** One thing to weigh in a step, with what of it is done. */
export interface Wanted extends Weigh {
  /** Grams already weighed towards it. */
  doneG: number;
  isDone: boolean;
  skipped: string | null;
}

/** Within this share of it a line that is topped up to the day's new size is full; twice as exact as a reading. */
const FULL_WITHIN = 0.005;
const LEAST_G = { small: 0.1, large: 1, from: 50 };

/** How much may be missing: less once the day was scaled, for then a line that lags behind shifts the proportions. */
function missingG({ massG, underG }: Pick<Weigh, 'massG' | 'underG'>, isMoved: boolean): number {
  if (!isMoved) return underG;
  const leastG = massG < LEAST_G.from ? LEAST_G.small : LEAST_G.large;
  return Math.min(underG, Math.max(FULL_WITHIN * massG, leastG));
}

/** Grams of a line that were weighed for a step; with null, for none that is known. */
function weighedFor(
  line: BatchLine | undefined,
  weigh: Weigh,
  step: string | null,
  sheet: Batch['sheet'],
): number {
  const isOfPortion = ({ portion }: Weighing) => portion === weigh.portion || line?.portion !== null;
  const isKnown = ({ id, weigh: all }: RunStep) => all.some((one) => one.line === weigh.line) && id;
  const known = new Set(sheet.steps.map(isKnown));
  return (line?.weighings ?? [])
    .filter((one) => isOfPortion(one) && (step ? one.step === step : !known.has(one.step ?? '')))
    .reduce((sum, { massG }) => sum + massG, 0);
}

/**
 * What a step wants weighed. What was weighed for it is its own; what was weighed of a line for no step that is known
 * fills those that weigh it in their order.
 */
export function wantedOf(batch: Batch, step: RunStep): Wanted[] {
  return plannedOf(batch, step).map((one) => {
    const totalG = batch.wantedG[one.line];
    if (totalG === undefined) return one;
    // What was settled at the pot comes with the last weighing of the line.
    const steps = batch.sheet.steps.filter(({ weigh }) => weigh.some(({ line }) => line === one.line));
    if (steps.at(-1)?.id !== step.id) return one;
    const others = steps.slice(0, -1).flatMap((other) => plannedOf(batch, other));
    const elsewhereG = others
      .filter(({ line }) => line === one.line)
      .reduce((sum, { doneG, massG }) => sum + Math.max(doneG, massG), 0);
    const massG = Math.max(0, totalG - elsewhereG);
    return { ...one, massG, isDone: one.doneG >= massG - missingG({ ...one, massG }, true) };
  });
}

function plannedOf(batch: Batch, step: RunStep): Wanted[] {
  const { sheet, lines } = batch;
  const factor = batch.scale;
  return step.weigh.map((weigh) => {
    const line = lines.find((one) => one.line === weigh.line);
    const own = (id: string | null) => weighedFor(line, weigh, id, sheet);
    let leftG = own(null);
    for (const earlier of sheet.steps) {
      if (earlier.id === step.id) break;
      for (const one of earlier.weigh)
        if (one.line === weigh.line && (one.portion === weigh.portion || line?.portion !== null))
          leftG -= Math.min(leftG, Math.max(0, one.massG * factor - own(earlier.id)));
    }
    const doneG = own(step.id) + Math.max(0, leftG);
    const massG = weigh.massG * factor;
    return {
      ...weigh,
      massG,
      doneG,
      isDone: doneG >= massG - missingG(weigh, factor !== 1),
      skipped: line?.skipped ?? null,
    };
  });
}

/** Something is in already and lacks what the day grew by. */
const isShort = ({ doneG, isDone, skipped }: Wanted) => doneG > 0 && !isDone && skipped === null;

/** What a step lacks since the day was scaled or the pot put right. */
export function shortOf(batch: Batch, step: RunStep): Wanted[] {
  const grows = batch.scale !== 1 && canGrow(batch);
  return wantedOf(batch, step).filter((one) => isShort(one) && (grows || one.line in batch.wantedG));
}

/** Whether a step is done, and nothing of it has to be topped up. */
export function isStepDone(batch: Batch, step: RunStep): boolean {
  return batch.stepsDone.some((one) => one.step === step.id) && shortOf(batch, step).length === 0;
}

/** What is weighed already and would have to be topped up were the day scaled by a factor. */
export function topUps(batch: Batch, factor: number): { name: string; massG: number }[] {
  const scaled = { ...batch, scale: factor };
  const short = batch.sheet.steps.flatMap((step) => wantedOf(scaled, step).filter(isShort));
  const byLine = groupBy(short, ({ line }) => line);
  return [...byLine.values()].map((parts) => ({
    name: parts[0]!.name,
    massG: parts.reduce((sum, { massG, doneG }) => sum + massG - doneG, 0),
  }));
}

/** Steps that have to be done before a step may be. */
export function missingBefore(batch: Batch, { after }: RunStep): RunStep[] {
  return batch.sheet.steps.filter((step) => after.includes(step.id) && !isStepDone(batch, step));
}

/** The next step to be done; null at the end of the day. */
export function nextStep(batch: Batch): RunStep | null {
  return batch.sheet.steps.find((step) => !isStepDone(batch, step)) ?? null;
}

/** Whether so much too much of the lye was weighed that it must not go into the fats as planned. */
export const isLyeOver = ({ line, doneG, massG, overG }: Wanted) =>
  (line === ALKALI_LINE || line === LYE_STOCK_LINE) && doneG > massG + overG;
