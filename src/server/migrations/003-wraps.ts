import type { Knex } from 'knex';

/** What goes on each bar, the maker's picture, and the labels that were issued, frozen. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('wraps', (table) => {
    table.string('product_id').primary().references('products.id').onDelete('CASCADE');
    table.integer('revision').notNullable();
    table.string('saved_at').notNullable();
    table.json('body').notNullable();
  });
  await knex.schema.createTable('issued_labels', (table) => {
    table.string('id').primary();
    // Not tied to the product: an issued label outlives the bar it was made for.
    table.string('product_id').notNullable().index();
    table.string('market').notNullable();
    table.string('issued_on').notNullable();
    table.json('body').notNullable();
    table.binary('pdf').notNullable();
  });
  await knex.schema.createTable('logos', (table) => {
    table.string('id').primary();
    table.string('mime').notNullable();
    table.float('width_over_height').notNullable();
    table.binary('bytes').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['logos', 'issued_labels', 'wraps']) await knex.schema.dropTable(table);
}
