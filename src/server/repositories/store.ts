/** The store as a whole: how much it holds, and the counters that go up with every change. */
import type { Knex } from 'knex';

/** How many bars, materials, batches and papers there are. */
export async function countsOf(db: Knex) {
  const count = async (table: string) =>
    (await db(table).count<{ count: number }[]>({ count: '*' }))[0]!.count;
  return {
    bars: await count('products'),
    materials: await count('materials'),
    batches: await count('batches'),
    papers: await count('documents'),
  };
}

/** Goes up with whatever is written, and with what assessments are made from. */
export async function versionOf(db: Knex): Promise<string> {
  const row: { version: number; ground: number } | undefined = await db('store').first('version', 'ground');
  return `${row?.version ?? 0}.${row?.ground ?? 0}`;
}
