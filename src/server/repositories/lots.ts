/** Lots: which bottle or sack of which delivery, and the ledger of what was taken from them. */
import type { Knex } from 'knex';
import type { Lot } from '../../core/making/cost';

interface LotRow {
  body: string;
  revision: number;
  left: number;
  /** The code of the batch it was made of, while that is in quarantine or after it was discarded. */
  held: string | null;
}

/** What a lot's row holds; what is left of it follows from the ledger. */
type KeptLot = Omit<Lot, 'revision' | 'leftG'>;

/** Sums of many weighings carry noise of the machine far below any scale. */
const rounded = (massG: number) => Math.round(massG * 1e6) / 1e6;

/** What speaks against a lot while the batch it was made of, named by its code, is held back. */
const heldWords = (code: string) => `Batch ${code}, which it was made of, is in quarantine or discarded.`;

function fromRow({ body, revision, left, held }: LotRow): Lot {
  const lot = JSON.parse(body) as KeptLot;
  return {
    ...lot,
    quarantine: lot.quarantine ?? (held === null ? null : heldWords(held)),
    leftG: rounded(left),
    revision,
  };
}

const HELD = `select batches.code from batches where batches.id = json_extract(lots.body, '$.ofBatch')
  and (batches.quarantined = 1 or batches.state = 'discarded')`;

/** More is left, or was taken than there was, than sums of many weighings leave. The index `lots_in_use` is of this. */
const IN_USE = 'abs(lot_ledgers.left_g) > 0.0000005';

/** Lots as they are read, oldest delivery first. */
const lots = (db: Knex) =>
  db('lots')
    .join('lot_ledgers', 'lot_ledgers.lot_id', 'lots.id')
    .orderBy('lots.received_on')
    .orderBy('lots.id')
    .select<LotRow[]>(
      'lots.body',
      'lots.revision',
      'lot_ledgers.left_g as left',
      db.raw(`(${HELD}) as held`),
    );

interface LotQuery {
  materials?: readonly string[];
  ids?: readonly string[];
  inUse?: boolean;
}

/** Lots with what is left and what holds them back; of some materials, one lot, or those that are not empty where asked. */
async function lotRows(db: Knex, of: LotQuery = {}): Promise<Lot[]> {
  const query = lots(db);
  if (of.materials) void query.whereIn('lots.material_id', of.materials);
  if (of.ids) void query.whereIn('lots.id', of.ids);
  if (of.inUse) void query.whereRaw(IN_USE);
  return (await query).map(fromRow);
}

/** Reckons what is left of every lot anew from the ledger. */
export async function sumLedgers(trx: Knex): Promise<void> {
  await trx.raw(
    `insert into lot_ledgers (lot_id, material_id, left_g)
     select id, material_id, coalesce(json_extract(body, '$.quantityG'), 0)
            - coalesce((select sum(mass_g) from stock_movements where lot_id = lots.id), 0)
     from lots where true
     on conflict (lot_id) do update set material_id = excluded.material_id, left_g = excluded.left_g`,
  );
}

/** Every lot, oldest delivery first. */
export const allLots = (db: Knex): Promise<Lot[]> => lotRows(db);

/** The codes of all lots, without what else is known of them. */
export async function lotCodes(db: Knex): Promise<{ id: string; code: string }[]> {
  const rows: { id: string; code: string }[] = await db('lots').select(
    'id',
    db.raw("json_extract(body, '$.code') as code"),
  );
  return rows;
}

/** Lots that are not empty, oldest delivery first; one that was overdrawn is among them. */
export const lotsInUse = (db: Knex): Promise<Lot[]> => lotRows(db, { inUse: true });

/** Materials of which there ever was a lot. */
export async function materialsWithLots(db: Knex): Promise<string[]> {
  const rows: { material: string }[] = await db('lot_ledgers').distinct({ material: 'material_id' });
  return rows.map(({ material }) => material);
}

/** The newest lot with a price of every material that has one. */
async function newestPriced(db: Knex): Promise<Lot[]> {
  const priced = "json_extract(lots.body, '$.price') is not null";
  const rows = await lots(db)
    .whereRaw(
      `(lots.material_id, lots.received_on) in
       (select material_id, max(received_on) from lots where ${priced} group by material_id)`,
    )
    .whereRaw(priced);
  return rows.map(fromRow);
}

/** Lots that say what materials cost: those that are not empty, and the newest with a price of each. */
export async function pricedLots(db: Knex): Promise<Lot[]> {
  const all = [...(await lotsInUse(db)), ...(await newestPriced(db))];
  return [...new Map(all.map((lot) => [lot.id, lot])).values()];
}

/** Lots with something in them that nothing speaks against on a day, with their ledgers. */
const freeLots = (db: Knex, today: string) =>
  db('lot_ledgers')
    .join('lots', 'lots.id', 'lot_ledgers.lot_id')
    .whereRaw(IN_USE)
    .where('lot_ledgers.left_g', '>', 0)
    .whereRaw("json_extract(lots.body, '$.quarantine') is null")
    .whereRaw("coalesce(json_extract(lots.body, '$.bestBefore'), ?) >= ?", [today, today])
    .whereRaw(`not exists (${HELD})`);

/** Grams of every material that can be taken on a day: of lots that nothing speaks against. */
export async function freeOfMaterials(db: Knex, today: string): Promise<ReadonlyMap<string, number>> {
  const rows: { material: string; freeG: number }[] = await freeLots(db, today)
    .groupBy('lots.material_id')
    .select({ material: 'lots.material_id' })
    .sum({ freeG: 'lot_ledgers.left_g' });
  return new Map(rows.map(({ material, freeG }) => [material, freeG]));
}

/** What `freeOfMaterials` counts, by the day until which it is good; null where none is on file. */
export async function freeByDate(
  db: Knex,
  today: string,
): Promise<{ material: string; massG: number; until: string | null }[]> {
  return freeLots(db, today)
    .groupByRaw("lots.material_id, json_extract(lots.body, '$.bestBefore')")
    .select({ material: 'lots.material_id' }, db.raw("json_extract(lots.body, '$.bestBefore') as until"))
    .sum({ massG: 'lot_ledgers.left_g' }) as unknown as Promise<
    { material: string; massG: number; until: string | null }[]
  >;
}

/** Lots of these ids, oldest delivery first. */
export const lotsById = (db: Knex, ids: readonly string[]): Promise<Lot[]> => lotRows(db, { ids });

/** Lots of some materials, oldest delivery first. */
export const lotsOf = (db: Knex, materials: readonly string[]): Promise<Lot[]> => lotRows(db, { materials });

const toRow = ({ revision, leftG: _follows, ...lot }: Lot) => ({
  material_id: lot.material,
  received_on: lot.receivedOn,
  revision,
  body: JSON.stringify(lot satisfies KeptLot),
});

/** Adds a lot, of which nothing is taken yet. */
export async function addLot(db: Knex, lot: Lot): Promise<void> {
  await db('lots').insert({ id: lot.id, ...toRow(lot) });
}

/** Changes a lot; what is left of it is changed by movements only. */
export async function putLot(db: Knex, lot: Lot): Promise<void> {
  const { body }: { body: string } = await db('lots').where('id', lot.id).select('body').first();
  const isOwn = lot.quarantine === null || lot.quarantine !== (await findLot(db, lot.id))!.quarantine;
  const { quarantine: own } = JSON.parse(body) as KeptLot;
  // What the form shows of the batch's quarantine is not the lot's own word.
  await db('lots')
    .where('id', lot.id)
    .update(toRow(isOwn ? lot : { ...lot, quarantine: own ?? null }));
}

/** Counts a lot's revision up: what is left of it has changed. */
export async function touchLot(db: Knex, id: string): Promise<void> {
  await db('lots').where('id', id).increment('revision');
}

/** The lot of that id, or null. */
export async function findLot(db: Knex, id: string): Promise<Lot | null> {
  return (await lotRows(db, { ids: [id] }))[0] ?? null;
}

/** Removes a lot with its own movements, and gives back what it was made of; true where there was one. */
export async function removeLot(db: Knex, id: string): Promise<boolean> {
  await db('stock_movements').where('lot_id', id).delete();
  await db('stock_movements').where('made_lot_id', id).delete();
  return (await db('lots').where('id', id).delete()) > 0;
}

/** One entry of the ledger: grams taken out of a lot, below zero where some came back. */
export interface Movement {
  lot: string;
  massG: number;
  at: string;
  batch: string | null;
  event: string | null;
  reason: string | null;
  /** The lot it was taken for, where that was made of lots. */
  madeLot?: string | null;
}

interface MovementRow {
  lot_id: string;
  mass_g: number;
  at: string;
  batch_id: string | null;
  event_id: string | null;
  reason: string | null;
  made_lot_id: string | null;
}

/** Writes a movement down. */
export async function addMovement(
  trx: Knex,
  { lot, massG, at, batch, event, reason, madeLot = null }: Movement,
): Promise<void> {
  await trx('stock_movements').insert({
    lot_id: lot,
    mass_g: massG,
    at,
    batch_id: batch,
    event_id: event,
    reason,
    made_lot_id: madeLot,
  });
}

/** The lots that a lot was made of, with their codes, and how much of each, grams. */
export async function partsOfLot(
  db: Knex,
  id: string,
): Promise<{ lot: string; code: string; massG: number }[]> {
  const rows: { lot: string; code: string; massG: number }[] = await db('stock_movements')
    .join('lots', 'lots.id', 'stock_movements.lot_id')
    .where('stock_movements.made_lot_id', id)
    .orderBy('stock_movements.id')
    .select({ lot: 'lots.id', code: db.raw("json_extract(lots.body, '$.code')"), massG: 'mass_g' });
  return rows.map((row) => ({ ...row, massG: rounded(row.massG) }));
}

/** The lots that were made of a lot. */
export async function lotsMadeOf(db: Knex, id: string): Promise<string[]> {
  const rows: { made: string }[] = await db('stock_movements')
    .where('lot_id', id)
    .whereNotNull('made_lot_id')
    .distinct({ made: 'made_lot_id' });
  return rows.map(({ made }) => made);
}

/** The movements of a lot, oldest first. */
export async function movementsOf(db: Knex, lotId: string): Promise<Movement[]> {
  const rows: MovementRow[] = await db('stock_movements').where('lot_id', lotId).orderBy('id');
  return rows.map(({ lot_id, mass_g, at, batch_id, event_id, reason, made_lot_id }) => ({
    lot: lot_id,
    massG: mass_g,
    at,
    batch: batch_id,
    event: event_id,
    reason,
    ...(made_lot_id === null ? {} : { madeLot: made_lot_id }),
  }));
}

/** The lots that were made from a batch. */
export async function lotsOfBatch(db: Knex, batch: string): Promise<string[]> {
  const rows: { id: string }[] = await db('lots')
    .whereRaw("json_extract(body, '$.ofBatch') = ?", [batch])
    .select('id');
  return rows.map(({ id }) => id);
}
