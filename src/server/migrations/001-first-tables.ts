import type { Knex } from 'knex';

/** Materials and their documents, products and the versions of their formulas, and the maker's settings. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('materials', (table) => {
    table.string('id').primary();
    table.string('name').notNullable();
    table.string('kind').notNullable();
    table.string('supplier');
    table.json('body').notNullable();
  });
  await knex.schema.createTable('documents', (table) => {
    table.string('id').primary();
    table.string('material_id').notNullable().references('materials.id').onDelete('CASCADE');
    table.string('type').notNullable();
    table.string('number').notNullable();
    table.string('edition');
    table.string('issued_on').notNullable();
    table.json('body').notNullable();
    table.index(['material_id', 'issued_on']);
  });
  await knex.schema.createTable('products', (table) => {
    table.string('id').primary();
    table.string('name').notNullable();
    table.integer('position').notNullable();
    table.json('body').notNullable();
  });
  await knex.schema.createTable('formula_versions', (table) => {
    table.increments('id');
    table.string('product_id').notNullable().references('products.id').onDelete('CASCADE');
    table.integer('number').notNullable();
    table.string('name');
    table.integer('revision').notNullable();
    table.string('saved_at').notNullable();
    table.json('formula').notNullable();
    table.unique(['product_id', 'number']);
  });
  await knex.schema.createTable('settings', (table) => {
    table.string('key').primary();
    table.json('value').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['settings', 'formula_versions', 'products', 'documents', 'materials']) {
    await knex.schema.dropTable(table);
  }
}
