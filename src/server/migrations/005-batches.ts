import type { Knex } from 'knex';

interface LotBody {
  quantityG: number;
  leftG?: number;
  receivedOn: string;
}

/** What was left of a lot before there was a ledger becomes its first movement. */
async function beginLedger(knex: Knex): Promise<void> {
  const lots: { id: string; body: string }[] = await knex('lots').select('id', 'body');
  for (const { id, body } of lots) {
    const { leftG, ...lot } = JSON.parse(body) as LotBody;
    await knex('lots')
      .where('id', id)
      .update({ body: JSON.stringify(lot) });
    const massG = lot.quantityG - (leftG ?? lot.quantityG);
    if (massG !== 0)
      await knex('stock_movements').insert({
        lot_id: id,
        mass_g: massG,
        at: `${lot.receivedOn}T00:00:00.000Z`,
        reason: 'Used before the ledger was begun',
      });
  }
}

/** Batches as lists of events that are only added to, and the ledger of stock. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('batches', (table) => {
    table.string('id').primary();
    table.string('code').notNullable().unique();
    table.string('product_id').notNullable().references('products.id').onDelete('RESTRICT');
    table.string('started_at').notNullable().index();
    table.integer('seq').notNullable();
    table.string('state').notNullable().index();
    table.boolean('quarantined').notNullable();
    table.json('summary').notNullable();
  });
  await knex.schema.createTable('batch_events', (table) => {
    table.string('id').primary();
    table.string('batch_id').notNullable().references('batches.id').onDelete('RESTRICT');
    table.integer('seq').notNullable();
    table.json('body').notNullable();
    table.string('received_at').notNullable();
    table.unique(['batch_id', 'seq']);
  });
  await knex.schema.createTable('stock_movements', (table) => {
    table.increments('id');
    table.string('lot_id').notNullable().references('lots.id').onDelete('RESTRICT').index();
    table.float('mass_g').notNullable();
    table.string('at').notNullable();
    table.string('batch_id').references('batches.id').index();
    table.string('event_id').unique();
    table.string('reason');
  });
  await beginLedger(knex);
}

export async function down(knex: Knex): Promise<void> {
  const lots: { id: string; body: string }[] = await knex('lots').select('id', 'body');
  for (const { id, body } of lots) {
    const lot = JSON.parse(body) as LotBody;
    const [{ gone }] = (await knex('stock_movements').where('lot_id', id).sum({ gone: 'mass_g' })) as [
      { gone: number | null },
    ];
    await knex('lots')
      .where('id', id)
      .update({ body: JSON.stringify({ ...lot, leftG: lot.quantityG - (gone ?? 0) }) });
  }
  for (const table of ['stock_movements', 'batch_events', 'batches']) await knex.schema.dropTable(table);
}
