/** Lots: taken down, changed, counted; the ledger alone says what is left of them. */
import type { Knex } from 'knex';
import type { Lot } from '../../../core/making/cost';
import type { CountedLot, CupboardEntry, StatedLot } from '../../../core/records/cupboard';
import type { ShelfCounted } from '../../doors/shelf';
import type { House } from '../../house';
import { fault } from '../../http';
import { batchesDrawing } from '../../repositories/batches';
import {
  lotsInUse,
  findLot,
  lotsMadeOf,
  movementsOf,
  putLot,
  removeLot,
  touchLot,
  type Movement,
} from '../../repositories/lots';
import { snapshotOf } from '../../store/snapshot';
import { once, writing } from '../../store/writing';
import { changing, changingFrom, requireMaterial, type Changed } from '../../store/materials';
import { checkLot, countShelf, makeLot } from '../../store/lots';

async function requireLot(trx: Knex, materialId: string, lotId: string): Promise<Lot> {
  await requireMaterial(trx, materialId);
  const known = await findLot(trx, lotId);
  if (known?.material === materialId) return known;
  throw fault(404, 'unknown-lot', `There is no lot "${lotId}" of this material.`, 'lot');
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
    const { ofBatch, strengthPct } = known;
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
      strengthPct,
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
    if ((await lotsMadeOf(trx, lotId)).length > 0) {
      const message = `Lot ${code} was made into other lots and stays for their trace. Count it down to nothing instead.`;
      throw fault(422, 'in-use', message, 'lot');
    }
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
