import type { Knex } from 'knex';

/** Complaints and unwanted effects. They stay readable when the bar or the batch they are about is taken away. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('complaints', (table) => {
    table.string('id').primary();
    table.string('product_id').notNullable().index();
    table.string('batch_id').index();
    table.string('heard_on').notNullable().index();
    table.integer('revision').notNullable();
    table.json('body').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('complaints');
}
