/** Taking things out of an archive that was built into a database of its own: by SQL from file to file, all or nothing. */
import type { Knex } from 'knex';
import { foldMissing } from '../store/batches';
import { writing } from '../store/writing';
import { TABLES } from './tables';
import type { ArchiveThing } from './unpack-job';

/** Tables whose rows have no name of their own: those of a thing are exchanged as a whole. */
const EXCHANGED: readonly string[] = ['formula_versions', 'product_materials', 'stock_movements'];

async function columnsOf(trx: Knex, table: string) {
  return trx.raw<{ name: string; pk: number }[]>(`pragma main.table_info(${table})`);
}

/** What stands in a column once the thing is taken over one that is here. */
function merged(column: string, table: string): string {
  // Windows that are open learn that it was changed.
  if (column === 'revision') return `${column} = max(${table}.revision + 1, excluded.revision)`;
  return `${column} = excluded.${column}`;
}

async function takeTable(trx: Knex, table: (typeof TABLES)[number], base: number): Promise<void> {
  const { name, thing, owner } = table;
  const infos = await columnsOf(trx, name);
  const mine = `(${owner}) in (select chosen.id from chosen where chosen.thing = '${thing}')`;
  const isExchanged = EXCHANGED.includes(name);
  if (isExchanged) await trx.raw(`delete from main.${name} where ${mine}`);
  const [{ count }] = (await trx.raw(`select count(*) as count from main.${name}`)) as [{ count: number }];
  // Numbers that the database gave are kept where nothing else has them.
  const isNumbered = isExchanged && infos.some((one) => one.name === 'id');
  const columns = infos.map((one) => one.name).filter((one) => !(isNumbered && one === 'id' && count > 0));
  const values = columns.map((one) => (one === 'position' ? `position + ${base}` : one));
  const keys = infos.filter(({ pk }) => pk > 0).map((one) => one.name);
  const changed = columns.filter((one) => !keys.includes(one) && one !== 'position');
  const upsert = isExchanged
    ? ''
    : `on conflict (${keys.join(', ')}) do update set ${changed.map((one) => merged(one, name)).join(', ')}`;
  await trx.raw(
    `insert into main.${name} (${columns.join(', ')})
     select ${values.join(', ')} from incoming.${name} where ${mine} order by rowid ${upsert}`,
  );
}

/** Writes the things that were chosen, and those of this house that they replace, in one transaction. */
export async function takeThings(
  db: Knex,
  incoming: string,
  things: readonly ArchiveThing[],
  tables: readonly string[],
): Promise<void> {
  await db.raw('attach ? as incoming', [incoming]);
  try {
    await writing(db, async (trx) => {
      await trx.raw('pragma defer_foreign_keys = on');
      await trx.raw('create temp table chosen (thing text, id text, primary key (thing, id))');
      for (const { thing, id } of things) await trx.raw('insert into chosen values (?, ?)', [thing, id]);
      const [{ base }] = (await trx.raw(
        'select coalesce(max(position) + 1, 0) as base from main.products',
      )) as [{ base: number }];
      for (const table of TABLES.filter(({ name }) => tables.includes(name)))
        await takeTable(trx, table, base);
      await trx.raw(
        "delete from main.batch_standings where batch_id in (select id from chosen where thing = 'batch')",
      );
      await trx.raw('drop table chosen');
      await foldMissing(trx);
    });
  } finally {
    await db.raw('detach incoming');
  }
}
