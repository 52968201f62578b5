import type { Knex } from 'knex';

/**
 * How every batch stands, what was sold of it and where it was measured, in rows beside its events: screens that show
 * many batches read these and fold none. They are filled where they are missing whenever a database is opened.
 */
export async function up(knex: Knex): Promise<void> {
  const own = (table: Knex.CreateTableBuilder) =>
    table.string('batch_id').notNullable().references('batches.id').onDelete('CASCADE');
  await knex.schema.createTable('batch_standings', (table) => {
    own(table).primary();
    table.string('made_of').notNullable();
    table.string('product_id').notNullable();
    table.integer('here').notNullable();
    table.float('ready').notNullable();
    table.float('coming').notNullable();
    table.string('released_at');
    table.string('cut_at');
    table.json('body').notNullable();
    table.index(['here', 'coming']);
    table.index(['product_id', 'cut_at']);
    table.index(['product_id', 'released_at', 'ready']);
  });
  await knex.schema.createTable('batch_sales', (table) => {
    own(table).index();
    table.string('product_id').notNullable();
    table.string('at').notNullable();
    table.float('bars').notNullable();
    table.index(['at', 'product_id', 'bars']);
  });
  await knex.schema.createTable('batch_warmth', (table) => {
    own(table);
    table.string('mould_id').notNullable();
    table.string('poured_at').notNullable();
    table.primary(['batch_id', 'mould_id']);
    table.index(['mould_id', 'poured_at']);
  });
  await knex.schema.alterTable('batches', (table) => {
    table.index(['product_id', 'started_at']);
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('batches', (table) => {
    table.dropIndex(['product_id', 'started_at']);
  });
  for (const table of ['batch_warmth', 'batch_sales', 'batch_standings']) await knex.schema.dropTable(table);
}
