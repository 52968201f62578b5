import type { Knex } from 'knex';

/** What is reckoned of a batch's cure, kept with the place of the event it was reckoned at; and its photographs. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('batch_cures', (table) => {
    table.string('batch_id').primary().references('batches.id').onDelete('CASCADE');
    table.integer('seq').notNullable();
    table.json('body').notNullable();
  });
  await knex.schema.createTable('batch_photos', (table) => {
    table.string('id').primary();
    table.string('batch_id').notNullable().references('batches.id').onDelete('RESTRICT').index();
    table.string('at').notNullable();
    table.string('mime').notNullable();
    table.string('note').notNullable();
    table.binary('bytes').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['batch_photos', 'batch_cures']) await knex.schema.dropTable(table);
}
