import type { Knex } from 'knex';

interface ProductBody {
  bars?: number;
}

/** Bars per batch belong to the formula, where they are undone and kept in versions like the rest. */
async function moveBarsIntoFormulas(knex: Knex): Promise<void> {
  const products: { id: string; body: string }[] = await knex('products').select('id', 'body');
  for (const product of products) {
    const { bars, ...body } = JSON.parse(product.body) as ProductBody;
    if (bars === undefined) continue;
    await knex('products')
      .where('id', product.id)
      .update({ body: JSON.stringify(body) });
    const versions: { id: number; formula: string }[] = await knex('formula_versions')
      .where('product_id', product.id)
      .select('id', 'formula');
    for (const { id, formula } of versions) {
      const moved = { bars, ...(JSON.parse(formula) as object) };
      await knex('formula_versions')
        .where('id', id)
        .update({ formula: JSON.stringify(moved) });
    }
  }
}

/** Mixes among the materials, lots, and the inbox of suppliers' papers. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('materials', (table) => {
    table.json('mix');
    table.integer('revision').notNullable().defaultTo(1);
  });
  await knex.schema.createTable('lots', (table) => {
    table.string('id').primary();
    table.string('material_id').notNullable().references('materials.id').onDelete('CASCADE');
    table.string('received_on').notNullable();
    table.json('body').notNullable();
    table.index(['material_id', 'received_on']);
  });
  await knex.schema.createTable('inbox', (table) => {
    table.string('id').primary();
    table.string('file_name').notNullable();
    table.string('mime').notNullable();
    table.string('received_on').notNullable();
    table.string('filed_on');
    table.binary('bytes').notNullable();
  });
  await moveBarsIntoFormulas(knex);
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.dropTable('inbox');
  await knex.schema.dropTable('lots');
  await knex.schema.alterTable('materials', (table) => {
    table.dropColumn('mix');
    table.dropColumn('revision');
  });
}
