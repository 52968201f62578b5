/** What was found out of earlier batches of a bar, for whoever pours it next. */
import type { NextTimeNote } from '../../../core/records/batch';
import type { House } from '../../house';
import { allBatches } from '../../repositories/batches';
import { requireBatch } from '../../store/batches';

/** Batches whose notes still tell something. */
const MOST_BATCHES = 8;
const MOST_NOTES = 12;

/** Notes made for next time, newest batch first. */
export async function notesForNextTime(house: House, product: string): Promise<NextTimeNote[]> {
  const notes: NextTimeNote[] = [];
  for (const { id, code } of (await allBatches(house.db, product)).slice(0, MOST_BATCHES)) {
    const { batch } = await requireBatch(house, id);
    for (const { at, by, text, for: purpose } of batch.notes)
      if (purpose === 'nextTime') notes.push({ batch: id, code, at, by, text });
  }
  return notes.slice(0, MOST_NOTES);
}
