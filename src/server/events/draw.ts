/** What a batch's events do to the stock: drawn and evened out in the transaction that takes the event. */
import type { Knex } from 'knex';
import { drawOf, lotRefusal, stockShare } from '../../core/batch/draw';
import type { Batch, BatchEvent, Refusal } from '../../core/batch/types';
import type { Lot } from '../../core/making/cost';
import { plainNumber } from '../../core/quantities/amount';
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

/** Percent of hydroxide that two stocks may be apart and still count as the same. */
const STRENGTH_APART_PCT = 0.5;

/** A stock of another strength than the day counts with is another lye. */
function strengthFault({ sheet: { lyeStock } }: Batch, { code, strengthPct }: Lot): Refusal | null {
  if (
    strengthPct == null ||
    !lyeStock ||
    Math.abs(strengthPct - lyeStock.concentrationPct) <= STRENGTH_APART_PCT
  )
    return null;
  const [own, day] = [strengthPct, lyeStock.concentrationPct].map((pct) => plainNumber(pct, 1));
  return refusal(
    'lot',
    'other-strength',
    `Lot ${code} is ${own} % strong, and this day counts with ${day} %. Take one of that strength, or begin the batch anew.`,
  );
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
  const ofOther = strengthFault(batch, lot);
  if (ofOther) return ofOther;
  const despite = 'despite' in event ? event.despite : null;
  const fault = despite ? null : lotRefusal(lot, draw.massG, dayOf(event.at, zone));
  if (fault) return fault;
  await openLot(trx, lot, dayOf(event.at, zone));
  await move(trx, id, event, draw.lot, draw.massG);
  return null;
}
