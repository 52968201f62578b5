/** Lots: which bottle or sack of which delivery. */
import type { Knex } from 'knex';
import type { Lot } from '../../core/making/cost';

interface LotRow {
  body: string;
}

/** Every lot, oldest delivery first. */
export async function allLots(db: Knex): Promise<Lot[]> {
  const rows: LotRow[] = await db('lots').select('body').orderBy('received_on');
  return rows.map(({ body }) => JSON.parse(body) as Lot);
}

/** Adds or replaces a lot. */
export async function putLot(db: Knex, lot: Lot): Promise<void> {
  await db('lots')
    .insert({ id: lot.id, material_id: lot.material, received_on: lot.receivedOn, body: JSON.stringify(lot) })
    .onConflict('id')
    .merge();
}

/** The lot of that id, or null. */
export async function findLot(db: Knex, id: string): Promise<Lot | null> {
  const row: LotRow | undefined = await db('lots').select('body').where('id', id).first();
  return row ? (JSON.parse(row.body) as Lot) : null;
}

/** Removes a lot; true where there was one. */
export async function removeLot(db: Knex, id: string): Promise<boolean> {
  return (await db('lots').where('id', id).delete()) > 0;
}
