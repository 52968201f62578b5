/** How a batch stands, as it is kept beside its events. */
import type { Batch, BatchStanding } from '../batch/types';
import { barsMassG, materialsIn, usualChecks } from './batch-cure';

/**
 * What of a folded batch is kept beside its events.
 *
 * @example
 * rackTasks(standingOf(batch), now, window, cure); // what it waits for
 */
export function standingOf(batch: Batch): BatchStanding {
  const {
    formula: _formula,
    materials: _materials,
    sheet: { bars },
    lines: _lines,
    stepsDone: _steps,
    temperatures: _temperatures,
    portions: _portions,
    notes: _notes,
    ...standing
  } = batch;
  return {
    ...standing,
    sheet: { bars },
    barsG: barsMassG(batch),
    asked: usualChecks(materialsIn(batch)).map(({ id, name }) => ({ id, name })),
  };
}
