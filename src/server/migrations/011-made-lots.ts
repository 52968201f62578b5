import type { Knex } from 'knex';

/** Which lot something was taken for, where a lot is made of lots: a lye stock, a bucket of fats, a blend in a bottle. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('stock_movements', (table) => {
    table.string('made_lot_id');
  });
  await knex.raw(
    'create index stock_movements_made on stock_movements (made_lot_id) where made_lot_id is not null',
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop index stock_movements_made');
  // The table is not made anew for it: that would take its triggers along.
  await knex.raw('alter table stock_movements drop column made_lot_id');
}
