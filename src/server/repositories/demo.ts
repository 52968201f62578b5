/** Taking the demo out again: what the maker's own things do not refer to. */
import type { Knex } from 'knex';
import type { DemoThings } from '../../core/records/house';

/** Ids of a list that no row of a query names. */
async function without(trx: Knex, ids: readonly string[], query: string): Promise<string[]> {
  const rows = await trx.raw<{ id: string }[]>(query);
  const held = new Set(rows.map(({ id }) => id));
  return ids.filter((id) => !held.has(id));
}

/** Materials that somebody's own things hold, and everything that those are mixed from, however deep. */
const HELD_MATERIALS = `with recursive held (id) as (
  select material_id from product_materials
  union select json_extract(line.value, '$.material') from formula_versions as v, json_each(v.formula, '$.lines') as line
  union select l.material_id from lots as l join stock_movements as s on s.lot_id = l.id where s.batch_id is not null
  union select m.id from materials as m
        where m.id not in (select value from json_each((select value from settings where key = 'demo'), '$.materials'))
  union select json_extract(part.value, '$.material') from held join materials as m on m.id = held.id, json_each(m.mix) as part
) select id from held`;

/** How many of these ids a table holds. */
async function left(db: Knex, table: string, ids: readonly string[]): Promise<number> {
  const [row] = await db(table).whereIn('id', ids).count<{ count: number }[]>({ count: '*' });
  return row!.count;
}

/** How much of the demo is still here. */
export async function demoLeft(db: Knex, demo: DemoThings) {
  return {
    bars: await left(db, 'products', demo.bars),
    materials: await left(db, 'materials', demo.materials),
    batches: await left(db, 'batches', demo.batches),
  };
}

/** Removes what the demo brought and nothing of the maker's own refers to. */
export async function removeDemo(trx: Knex, demo: DemoThings): Promise<void> {
  const drop = async (table: string, column: string, ids: readonly string[]) => {
    await trx(table).whereIn(column, ids).delete();
  };
  for (const [table, column] of [
    ['stock_movements', 'batch_id'],
    ['batch_photos', 'batch_id'],
    ['batch_events', 'batch_id'],
    ['batches', 'id'],
  ] as const)
    await drop(table, column, demo.batches);
  const bars = await without(trx, demo.bars, 'select distinct product_id as id from batches');
  await drop('issued_labels', 'product_id', bars);
  await drop('products', 'id', bars);
  const free = await without(trx, demo.materials, HELD_MATERIALS);
  await trx('stock_movements')
    .whereIn('lot_id', trx('lots').select('id').whereIn('material_id', free))
    .delete();
  await drop('materials', 'id', free);
  await drop('inbox', 'id', demo.papers);
}
