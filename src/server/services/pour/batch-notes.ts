/** What was found out of earlier batches of a bar, for whoever pours it next. */
import type { NextTimeNote } from '../../../core/records/batch';
import type { House } from '../../house';
import { allBatches, notesIn } from '../../repositories/batches';

/** Batches whose notes still tell something. */
const MOST_BATCHES = 8;
const MOST_NOTES = 12;

/** Notes made for next time, newest batch first. */
export async function notesForNextTime(house: House, product: string): Promise<NextTimeNote[]> {
  const batches = (await allBatches(house.db, product)).slice(0, MOST_BATCHES);
  const noted = await notesIn(
    house.db,
    batches.map(({ id }) => id),
  );
  const notes = batches.flatMap(({ id, code }) =>
    (noted.get(id) ?? [])
      .filter((note) => note.for === 'nextTime')
      .map(({ at, by, text }): NextTimeNote => ({ batch: id, code, at, by, text })),
  );
  return notes.slice(0, MOST_NOTES);
}
