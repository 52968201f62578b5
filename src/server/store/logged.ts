/** Batches that were made before, out of a maker's log: begun, weighed as it says, and poured, all on their day;
 * cut where it says into how many bars. */
import { randomUUID } from 'node:crypto';
import type { BatchEvent } from '../../core/batch/types';
import { dayAfter, momentOn } from '../../core/quantities/day';
import type { TakenBatch } from '../../core/records/import';
import type { House } from '../house';
import { fault } from '../http';
import { addEvents } from './batch-events';
import { startBatch } from './start-batch';

/** The clock of each part of a day that nobody noted the hours of. */
const [BEGUN, WEIGHED, POURED] = ['12:00', '12:10', '13:00'];

/**
 * Makes a batch of a log within a transaction. Nothing of it draws stock: the log does not say of which lots it was.
 * Faults where it cannot be: a code that is taken, a day to come, a line that the formula has not.
 */
export async function addLogged(
  house: House,
  product: string,
  { code, day, bars, weighed }: TakenBatch,
  from: string,
): Promise<void> {
  if (day > house.today) throw fault(422, 'day-to-come', `${day} is still to come.`, 'day');
  const of = (type: string, clock: string, on = day) => ({
    ...{ id: randomUUID(), type, at: momentOn(on, house.zone, clock), by: null },
  });
  const { id } = await startBatch(
    { ...house, today: day },
    { product, by: null },
    { at: momentOn(day, house.zone, BEGUN), ...(code === '' ? {} : { code }), more: [] },
  );
  const events = [
    ...weighed.map(({ line, massG, readabilityG }) => ({
      ...of('weighed', WEIGHED),
      ...{ line, massG, readabilityG, how: 'typed', lot: null, portion: null, despite: null },
    })),
    { ...of('poured', POURED), moulds: [], leftoverG: 0 },
    ...(bars === null ? [] : [{ ...of('cut', BEGUN, dayAfter(day, 1)), bars, seconds: 0, trimmingsG: 0 }]),
    {
      ...of('noted', POURED),
      text: `Taken from ${from} on ${house.today}: what was weighed, as it stands there. Hours and lots were not noted${bars === null ? '' : ', nor when it was cut: a day after the pour is taken'}.`,
      for: 'record',
    },
  ] as BatchEvent[];
  await addEvents(house, id, { after: null, events });
}
