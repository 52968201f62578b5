/** What a batch's events do to the stock: drawn and evened out in the transaction that takes the event. */
import type { Knex } from 'knex';
import { drawOf, lotRefusal, stockShare } from '../../core/batch/draw';
import type { Batch, BatchEvent, Refusal } from '../../core/batch/types';
import type { Lot } from '../../core/making/cost';
import { dayOf } from '../../core/quantities/day';
import { addMovement, findLot, putLot, touchLot } from '../repositories/lots';

const refusal = (path: string, code: string, message: string): Refusal => ({ path, code, message });

/** What is drawn from for the first time is opened by it. */
async function openLot(trx: Knex, lot: Lot, day: string): Promise<void> {
  if (lot.openedOn === null && lot.ofBatch == null) await putLot(trx, { ...lot, openedOn: day });
}

async function move(trx: Knex, id: string, event: BatchEvent, lot: string, massG: number): Promise<void> {
  await addMovement(trx, { lot, massG, at: event.at, batch: id, event: event.id, reason: null });
  // Whoever counts the shelf from an older look is told.
  await touchLot(trx, lot);
}

/** Draws what an event takes, or evens out what it corrects, on its day in the house's zone. Answers why not, and then has changed nothing. */
export async function drawStock(
  trx: Knex,
  id: string,
  batch: Batch,
  event: BatchEvent,
  zone: string,
): Promise<Refusal | null> {
  if (event.type === 'corrected') {
    const line = batch.lines.find(({ weighings }) => weighings.some((one) => one.event === event.event));
    // A bar weighed on the rack draws nothing.
    if (!line) return null;
    const weighing = line.weighings.find((one) => one.event === event.event)!;
    const massG = (event.massG - weighing.massG) * stockShare(batch, line.material).share;
    if (weighing.lot === null || massG === 0) return null;
    const lot = await findLot(trx, weighing.lot);
    // More of it is drawn like a weighing; less goes back whatever speaks against the lot.
    const fault = lot && massG > 0 && !event.despite ? lotRefusal(lot, massG, dayOf(event.at, zone)) : null;
    if (fault) return { ...fault, path: 'massG' };
    await move(trx, id, event, weighing.lot, massG);
    return null;
  }
  const draw = drawOf(batch, event);
  if (!draw) return null;
  const lot = await findLot(trx, draw.lot);
  if (lot?.material !== draw.material)
    return refusal('lot', 'unknown-lot', `There is no lot "${draw.lot}" of ${draw.material}.`);
  const despite = 'despite' in event ? event.despite : null;
  const fault = despite ? null : lotRefusal(lot, draw.massG, dayOf(event.at, zone));
  if (fault) return fault;
  await openLot(trx, lot, dayOf(event.at, zone));
  await move(trx, id, event, draw.lot, draw.massG);
  return null;
}
