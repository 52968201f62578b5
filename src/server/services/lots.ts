/** Lots: taken down, changed, counted; the ledger alone says what is left of them. */
import type { Knex } from 'knex';
import type { Lot } from '../../core/making/cost';
import type { CupboardEntry, StatedLot } from '../../core/records/cupboard';
import type { House } from '../house';
import { fault } from '../http';
import { batchesDrawing } from '../repositories/batches';
import {
  addLot,
  addMovement,
  findLot,
  movementsOf,
  putLot,
  removeLot,
  type Movement,
} from '../repositories/lots';
import { takenIds } from '../store/writing';
import { freeId } from './ids';
import { changing, changingFrom, requireMaterial, type Changed } from './materials';

function checkLot({ leftG, quantityG }: StatedLot): void {
  if (leftG > quantityG)
    throw fault(422, 'more-left-than-bought', 'No more can be left than was bought.', 'leftG');
}

async function requireLot(trx: Knex, materialId: string, lotId: string): Promise<Lot> {
  await requireMaterial(trx, materialId);
  const known = await findLot(trx, lotId);
  if (known?.material === materialId) return known;
  throw fault(404, 'unknown-lot', `There is no lot "${lotId}" of this material.`, 'lot');
}

/** Brings the ledger of a lot to what was counted, by a movement with its reason. */
async function countShelf(
  trx: Knex,
  { now }: House,
  lot: string,
  ledgerG: number,
  countedG: number,
  reason: string,
): Promise<void> {
  const massG = ledgerG - countedG;
  if (massG !== 0) await addMovement(trx, { lot, massG, at: now, batch: null, event: null, reason });
}

/** Adds a lot to a material. */
export function addNewLot(
  house: House,
  materialId: string,
  lot: StatedLot,
  key: string | null = null,
): Promise<CupboardEntry> {
  const action = async (trx: Knex) => {
    await requireMaterial(trx, materialId);
    checkLot(lot);
    const id = await freeId(`${materialId} ${lot.code}`, 'lot', (base) => takenIds(trx, 'lots', base));
    await addLot(trx, { ...lot, id, material: materialId, quarantine: lot.quarantine ?? null, revision: 1 });
    await countShelf(trx, house, id, lot.quantityG, lot.leftG, 'As it was when it was written down');
    return materialId;
  };
  return changing(house, action, key, 'lot');
}

/** Changes a lot made from a revision. */
export function changeLot(
  house: House,
  materialId: string,
  lotId: string,
  revision: number,
  lot: StatedLot,
): Promise<Changed> {
  return changingFrom(house, materialId, async (trx) => {
    const known = await requireLot(trx, materialId, lotId);
    checkLot(lot);
    if (known.revision !== revision) return 'stale';
    const quarantine = lot.quarantine === undefined ? known.quarantine : lot.quarantine;
    const { ofBatch } = known;
    await putLot(trx, {
      ...lot,
      id: lotId,
      material: materialId,
      quarantine,
      ofBatch,
      revision: revision + 1,
    });
    const stillG = lot.quantityG - (known.quantityG - known.leftG);
    await countShelf(trx, house, lotId, stillG, lot.leftG, 'Counted on the shelf');
    return 'changed';
  });
}

/** Removes a lot. */
export function discardLot(house: House, materialId: string, lotId: string): Promise<CupboardEntry> {
  return changing(house, async (trx) => {
    const { code } = await requireLot(trx, materialId, lotId);
    if ((await batchesDrawing(trx, lotId)).length > 0) {
      const message = `Lot ${code} went into batches and stays for their trace. Count it down to nothing instead.`;
      throw fault(422, 'in-use', message, 'lot');
    }
    await removeLot(trx, lotId);
    return materialId;
  });
}

/** A lot's ledger; 404 where there is no such lot. */
export async function lotLedger(
  { db }: House,
  id: string,
): Promise<{ lot: Lot; leftG: number; movements: Movement[] }> {
  const lot = await findLot(db, id);
  if (!lot) throw fault(404, 'unknown-lot', `There is no lot "${id}".`, 'id');
  return { lot, leftG: lot.leftG, movements: await movementsOf(db, id) };
}
