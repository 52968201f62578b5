import type { Knex } from 'knex';

interface Formula {
  lines?: { material: string }[];
}

/** Which materials every bar's working formula holds, so that uses are found without reading all formulas. */
async function fillUses(knex: Knex): Promise<void> {
  const rows: { product_id: string; formula: string }[] = await knex('formula_versions as v')
    .select('v.product_id', 'v.formula')
    .whereRaw('v.number = (select max(number) from formula_versions where product_id = v.product_id)');
  for (const { product_id, formula } of rows) {
    const ids = new Set(((JSON.parse(formula) as Formula).lines ?? []).map(({ material }) => material));
    for (const material_id of ids) await knex('product_materials').insert({ product_id, material_id });
  }
}

/** What counts up `store.ground`: everything an assessment falls back on. */
const GROUND_TABLES = ['materials', 'documents', 'settings'];

/**
 * Revisions for everything a maker changes; counters that tell whether the store changed; uses of materials;
 * answers of requests that may come twice; verdicts kept beside the bars.
 */
export async function up(knex: Knex): Promise<void> {
  for (const name of ['products', 'lots', 'settings']) {
    await knex.schema.alterTable(name, (table) => {
      table.integer('revision').notNullable().defaultTo(1);
    });
  }
  await knex.schema.alterTable('products', (table) => {
    table.string('put_away_on');
    table.index(['put_away_on', 'position']);
  });
  await knex.schema.createTable('product_materials', (table) => {
    table.string('product_id').notNullable().references('products.id').onDelete('CASCADE');
    table.string('material_id').notNullable().index();
    table.primary(['product_id', 'material_id']);
  });
  await fillUses(knex);
  await knex.schema.createTable('answered', (table) => {
    table.string('id').primary();
    table.string('kind').notNullable();
    table.string('at').notNullable();
    table.json('body').notNullable();
  });
  await knex.schema.createTable('overviews', (table) => {
    table.string('product_id').primary().references('products.id').onDelete('CASCADE');
    table.string('stamp').notNullable();
    table.json('body').notNullable();
  });
  await knex.schema.createTable('store', (table) => {
    table.integer('id').primary();
    table.integer('version').notNullable();
    table.integer('ground').notNullable();
  });
  await knex('store').insert({ id: 1, version: 1, ground: 1 });
  for (const table of GROUND_TABLES) {
    for (const change of ['insert', 'update', 'delete']) {
      await knex.raw(
        `create trigger ground_${table}_${change} after ${change} on ${table} begin update store set ground = ground + 1; end`,
      );
    }
  }
}

export async function down(knex: Knex): Promise<void> {
  for (const table of GROUND_TABLES)
    for (const change of ['insert', 'update', 'delete'])
      await knex.raw(`drop trigger ground_${table}_${change}`);
  for (const table of ['store', 'overviews', 'answered', 'product_materials'])
    await knex.schema.dropTable(table);
  await knex.schema.alterTable('products', (table) => {
    table.dropIndex(['put_away_on', 'position']);
    table.dropColumn('put_away_on');
  });
  for (const name of ['products', 'lots', 'settings'])
    await knex.schema.alterTable(name, (table) => table.dropColumn('revision'));
}
