import type { Knex } from 'knex';

/** How many bars of a batch were sold stands with how it stands: the range asks it of every bar at each look. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('batch_standings', (table) => {
    table.float('sold').notNullable().defaultTo(0);
    table.index(['product_id', 'sold']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('batch_standings', (table) => {
    table.dropIndex(['product_id', 'sold']);
    table.dropColumn('sold');
  });
}
