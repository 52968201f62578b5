/** New lots, one by one and by the delivery. */
import type { Knex } from 'knex';
import type { StatedLot } from '../../core/records/cupboard';
import { nextCodes } from '../../core/stock/lot-code';
import type { Delivery } from '../doors/shelf';
import type { House } from '../house';
import { fault } from '../http';
import { addLot, allLots, addMovement } from '../repositories/lots';
import { snapshotOf } from './snapshot';
import { once, takenIds, writing } from './writing';
import { freeId } from './ids';
import { takeMaterial } from './materials';

export function checkLot({ leftG, quantityG }: StatedLot): void {
  if (leftG > quantityG)
    throw fault(422, 'more-left-than-bought', 'No more can be left than was bought.', 'leftG');
}

/** Brings the ledger of a lot to what was counted, by a movement with its reason. */
export async function countShelf(
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
