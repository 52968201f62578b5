/** The maker's own settings. */
import type { Knex } from 'knex';
import type { OwnPhrase } from '../../core/claims/types';
import type { Mould } from '../../core/making/size';

/** Who answers for the product, as a label names them. */
export interface Maker {
  name: string;
  addressLines: string[];
}

/** The maker's own craft figures: percent by the id of the craft limit they take the place of. */
export type CraftFigures = Record<string, number>;

async function find<T>(db: Knex, key: string): Promise<T | null> {
  const row: { value: string } | undefined = await db('settings').select('value').where('key', key).first();
  return row ? (JSON.parse(row.value) as T) : null;
}

async function put(db: Knex, key: string, value: unknown): Promise<void> {
  await db('settings')
    .insert({ key, value: JSON.stringify(value) })
    .onConflict('key')
    .merge();
}

/** The maker on file, or null before any is set. */
export function findMaker(db: Knex): Promise<Maker | null> {
  return find<Maker>(db, 'maker');
}

/** Sets the maker. */
export function putMaker(db: Knex, maker: Maker): Promise<void> {
  return put(db, 'maker', maker);
}

/** The maker's own craft figures; empty before any is set. */
export async function findCraftFigures(db: Knex): Promise<CraftFigures> {
  return (await find<CraftFigures>(db, 'craftFigures')) ?? {};
}

/** Sets the maker's figure for a craft limit, percent, or takes it back with null. One transaction. */
export function putCraftFigure(db: Knex, id: string, maxPct: number | null): Promise<void> {
  return db.transaction(async (trx) => {
    const { [id]: _, ...rest } = await findCraftFigures(trx);
    await put(trx, 'craftFigures', maxPct === null ? rest : { ...rest, [id]: maxPct });
  });
}

/** The maker's moulds; empty before any is set. */
export async function findMoulds(db: Knex): Promise<Mould[]> {
  return (await find<Mould[]>(db, 'moulds')) ?? [];
}

/** Sets the maker's moulds. */
export function putMoulds(db: Knex, moulds: readonly Mould[]): Promise<void> {
  return put(db, 'moulds', moulds);
}

const USUAL_CURRENCY = 'EUR';

/** The currency that prices are in, as its three letters. */
export async function findCurrency(db: Knex): Promise<string> {
  return (await find<string>(db, 'currency')) ?? USUAL_CURRENCY;
}

/** Phrases the maker added to those that ship; empty before any is set. */
export async function findOwnPhrases(db: Knex): Promise<OwnPhrase[]> {
  return (await find<OwnPhrase[]>(db, 'ownPhrases')) ?? [];
}

/** Sets the maker's own phrases. */
export function putOwnPhrases(db: Knex, phrases: readonly OwnPhrase[]): Promise<void> {
  return put(db, 'ownPhrases', phrases);
}
