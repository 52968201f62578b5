/** How a batch stands, as it is kept beside its events. */
import type { Batch, BatchStanding } from '../batch/types';
import { stockShare } from '../batch/draw';
import { barsMassG, materialsIn, usualChecks } from './batch-cure';

function drawnOf(batch: Batch): BatchStanding['drawn'] {
  return batch.lines.flatMap(({ line, material, portion, weighings }) =>
    weighings.flatMap(({ lot, portion: of, massG }) =>
      lot === null
        ? []
        : [{ lot, line, portion: portion ?? of, massG: massG * stockShare(batch, material).share }],
    ),
  );
}

/** The state that the events came to; that bars cure a day after the cut without anybody's word is for whoever looks. */
const stateByEvents = ({ state, barWeighings }: Batch): Batch['state'] =>
  state === 'curing' && barWeighings.length === 0 ? 'cut' : state;

/**
 * What of a folded batch is kept beside its events: the same whenever it was folded.
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
    wantedG: _wanted,
    stepsDone: _steps,
    temperatures: _temperatures,
    portions: _portions,
    notes: _notes,
    ...standing
  } = batch;
  return {
    ...standing,
    state: stateByEvents(batch),
    sheet: { bars },
    barsG: barsMassG(batch),
    drawn: drawnOf(batch),
    asked: usualChecks(materialsIn(batch)).map(({ id, name }) => ({ id, name })),
  };
}
