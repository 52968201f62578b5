/** The maker's own settings. */
import type { Knex } from 'knex';

/** Who answers for the product, as a label names them. */
export interface Maker {
  name: string;
  addressLines: string[];
}

/** The maker on file, or null before any is set. */
export async function findMaker(db: Knex): Promise<Maker | null> {
  const row: { value: string } | undefined = await db('settings')
    .select('value')
    .where('key', 'maker')
    .first();
  return row ? (JSON.parse(row.value) as Maker) : null;
}

/** Sets the maker. */
export async function putMaker(db: Knex, maker: Maker): Promise<void> {
  await db('settings')
    .insert({ key: 'maker', value: JSON.stringify(maker) })
    .onConflict('key')
    .merge();
}
