/** Lots: which bottle or sack of which delivery. */
import type { Knex } from 'knex';
import type { Lot } from '../../core/making/cost';

interface LotRow {
  body: string;
  revision: number;
}

const fromRow = ({ body, revision }: LotRow): Lot => ({ ...(JSON.parse(body) as Lot), revision });

/** Lots, oldest delivery first: all, or those of one material. */
export async function allLots(db: Knex, materialId?: string): Promise<Lot[]> {
  const query = db<LotRow>('lots').select('body', 'revision').orderBy('received_on');
  const rows = await (materialId === undefined ? query : query.where('material_id', materialId));
  return rows.map(fromRow);
}

const toRow = ({ revision, ...lot }: Lot) => ({
  material_id: lot.material,
  received_on: lot.receivedOn,
  revision,
  body: JSON.stringify(lot),
});

/** Adds a lot. */
export async function addLot(db: Knex, lot: Lot): Promise<void> {
  await db('lots').insert({ id: lot.id, ...toRow(lot) });
}

/** Changes a lot. */
export async function putLot(db: Knex, lot: Lot): Promise<void> {
  await db('lots').where('id', lot.id).update(toRow(lot));
}

/** The lot of that id, or null. */
export async function findLot(db: Knex, id: string): Promise<Lot | null> {
  const row: LotRow | undefined = await db('lots').select('body', 'revision').where('id', id).first();
  return row ? fromRow(row) : null;
}

/** Removes a lot; true where there was one. */
export async function removeLot(db: Knex, id: string): Promise<boolean> {
  return (await db('lots').where('id', id).delete()) > 0;
}
