/** Lots: taken down, changed, counted; the ledger alone says what is left of them. */
import type { Knex } from 'knex';
import type { Lot } from '../../../core/making/cost';
import type { CountedLot, CupboardEntry, StatedLot } from '../../../core/records/cupboard';
import { nextCodes } from '../../../core/stock/lot-code';
import type { Delivery, ShelfCounted } from '../../doors/shelf';
import type { House } from '../../house';
import { fault } from '../../http';
import { batchesDrawing } from '../../repositories/batches';
import {
  addLot,
  allLots,
  addMovement,
  lotsInUse,
  findLot,
  movementsOf,
  putLot,
  removeLot,
  touchLot,
  type Movement,
} from '../../repositories/lots';
import { snapshotOf } from '../../store/snapshot';
import { once, takenIds, writing } from '../../store/writing';
import { freeId } from '../../store/ids';
import { changing, changingFrom, requireMaterial, takeMaterial, type Changed } from './materials';

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

/** Within a transaction: a new lot of a material. */
export async function makeLot(trx: Knex, house: House, materialId: string, lot: StatedLot): Promise<void> {
  checkLot(lot);
  const id = await freeId(`${materialId} ${lot.code}`, 'lot', (base) => takenIds(trx, 'lots', base));
  await addLot(trx, { ...lot, id, material: materialId, quarantine: lot.quarantine ?? null, revision: 1 });
  await countShelf(trx, house, id, lot.quantityG, lot.leftG, 'As it was when it was written down');
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
    await makeLot(trx, house, materialId, lot);
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
    const { ofBatch } = known;
    // What is not spoken of stays as it was.
    const { quarantine = known.quarantine, peroxideMmolPerL = known.peroxideMmolPerL } = lot;
    const { peroxideOn = known.peroxideOn } = lot;
    await putLot(trx, {
      ...lot,
      id: lotId,
      material: materialId,
      quarantine,
      peroxideMmolPerL,
      peroxideOn,
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

/** Every lot that the ledger says something is left of, by material's name. */
export async function lotsOnShelf({ db, today }: House): Promise<CountedLot[]> {
  const snapshot = await snapshotOf(db, today);
  return (await lotsInUse(db))
    .map(({ id, code, material, leftG }) => ({
      id,
      code,
      leftG,
      name: snapshot.material(material)?.name ?? material,
    }))
    .sort((a, b) => a.name.localeCompare(b.name) || a.code.localeCompare(b.code));
}

/** Brings the ledger to what was counted, all lots or none: 422 with the place of the one that cannot be. */
export async function countLots(
  house: House,
  { rows, reason }: ShelfCounted,
  key: string | null = null,
): Promise<CountedLot[]> {
  await writing(house.db, (trx) =>
    once(trx, key, 'count', house.now, async () => {
      for (const [at, { lot: id, leftG }] of rows.entries()) {
        const lot = await findLot(trx, id);
        if (!lot) throw fault(422, 'unknown-lot', `There is no lot "${id}".`, `rows.${at}.lot`);
        if (leftG > lot.quantityG)
          throw fault(
            422,
            'more-left-than-bought',
            `Of lot ${lot.code} no more can be left than was bought.`,
            `rows.${at}.leftG`,
          );
        await countShelf(trx, house, id, lot.leftG, leftG, reason);
        // Whoever changes the lot from an older look is told.
        await touchLot(trx, id);
      }
      return rows.length;
    }),
  );
  return lotsOnShelf(house);
}

/**
 * Takes a delivery down, all of it or none: a lot for each row, numbered as the maker numbers where a row says no code;
 * materials of the library come into the cupboard with it. `key` names the request. 404 for an unknown material.
 */
export function takeDelivery(
  house: House,
  { supplier, receivedOn, rows }: Delivery,
  key: string | null = null,
): Promise<{ lots: { material: string; name: string; code: string; quantityG: number }[] }> {
  return writing(house.db, (trx) =>
    once(trx, key, 'delivery', house.now, async () => {
      const known = (await allLots(trx)).map(({ code }) => code);
      const snapshot = await snapshotOf(trx, house.today);
      const names = rows.map(({ material }) => snapshot.material(material)?.name ?? material);
      const open = rows.flatMap(({ code }, at) => (code?.trim() ? [] : [at]));
      const made = nextCodes(
        known,
        open.map((at) => names[at]!),
        house.today,
      );
      const lots = [];
      for (const [at, { material, quantityG, code, bestBefore, price }] of rows.entries()) {
        await takeMaterial(trx, material, supplier || null);
        const own = code?.trim() || made[open.indexOf(at)]!;
        await makeLot(trx, house, material, {
          ...{
            supplier,
            code: own,
            receivedOn,
            openedOn: null,
            bestBefore,
            quantityG,
            leftG: quantityG,
            price,
          },
        });
        lots.push({ material, name: names[at]!, code: own, quantityG });
      }
      return { lots };
    }),
  );
}
