/** What a batch's events do to the stock: drawn and evened out in the transaction that takes the event. */
import { plainNumber } from '../../core/quantities/amount';
import type { Knex } from 'knex';
import type { Batch, BatchEvent, Refusal } from '../../core/batch/types';
import type { Lot } from '../../core/making/cost';
import { ALKALI_MATERIAL } from '../../core/making/cost';
import { LYE_STOCK_LINE } from '../../core/making/run-sheet-types';
import { addMovement, findLot, touchLot } from '../repositories/lots';

const refusal = (path: string, code: string, message: string): Refusal => ({ path, code, message });
const grams = (massG: number) => `${plainNumber(massG, 1)} g`;

/** A lot that an event draws from, and how much of it. */
interface Draw {
  lot: string;
  material: string;
  massG: number;
}

/** What of a lot a mass of a line is: of a lye stock, its hydroxide. */
function share(batch: Batch, material: string): { material: string; share: number } {
  if (material !== LYE_STOCK_LINE) return { material, share: 1 };
  return { material: ALKALI_MATERIAL, share: (batch.sheet.lyeStock?.concentrationPct ?? 0) / 100 };
}

function drawOf(batch: Batch, event: BatchEvent): Draw | null {
  if (event.type !== 'weighed' && event.type !== 'guessed' && event.type !== 'added') return null;
  if (event.lot == null) return null;
  const of =
    event.type === 'added' ? event.material : batch.lines.find(({ line }) => line === event.line)!.material;
  const { material, share: part } = share(batch, of);
  return { lot: event.lot, material, massG: event.massG * part };
}

/** Why a lot is not to be taken; null where nothing speaks against it. */
function lotFault(lot: Lot, massG: number, day: string): Refusal | null {
  const way = 'Take another, or say why with “despite”.';
  if (lot.quarantine !== null)
    return refusal('lot', 'lot-quarantined', `Lot ${lot.code} is in quarantine: ${lot.quarantine} ${way}`);
  if (lot.bestBefore !== null && lot.bestBefore < day)
    return refusal('lot', 'lot-past', `Lot ${lot.code} was best before ${lot.bestBefore}. ${way}`);
  // Kitchen scales and ledgers part by small amounts; what is left is still a plain number.
  if (lot.leftG < massG - 1e-9)
    return refusal(
      'lot',
      'lot-short',
      `Lot ${lot.code} holds ${grams(lot.leftG)}, not ${grams(massG)}. ${way}`,
    );
  return null;
}

async function move(trx: Knex, id: string, event: BatchEvent, lot: string, massG: number): Promise<void> {
  await addMovement(trx, { lot, massG, at: event.at, batch: id, event: event.id, reason: null });
  // Whoever counts the shelf from an older look is told.
  await touchLot(trx, lot);
}

/** Draws what an event takes, or evens out what it corrects. Answers why not, and then has changed nothing. */
export async function drawStock(
  trx: Knex,
  id: string,
  batch: Batch,
  event: BatchEvent,
): Promise<Refusal | null> {
  if (event.type === 'corrected') {
    const line = batch.lines.find(({ weighings }) => weighings.some((one) => one.event === event.event));
    // A bar weighed on the rack draws nothing.
    if (!line) return null;
    const weighing = line.weighings.find((one) => one.event === event.event)!;
    const { share: part } = share(batch, line.material);
    const massG = (event.massG - weighing.massG) * part;
    if (weighing.lot !== null && massG !== 0) await move(trx, id, event, weighing.lot, massG);
    return null;
  }
  const draw = drawOf(batch, event);
  if (!draw) return null;
  const lot = await findLot(trx, draw.lot);
  if (lot?.material !== draw.material)
    return refusal('lot', 'unknown-lot', `There is no lot "${draw.lot}" of ${draw.material}.`);
  const despite = 'despite' in event ? event.despite : null;
  const fault = despite ? null : lotFault(lot, draw.massG, event.at.slice(0, 10));
  if (fault) return fault;
  await move(trx, id, event, draw.lot, draw.massG);
  return null;
}
