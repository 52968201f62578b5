import type { Knex } from 'knex';

const QUANTITY = (row: string) => `coalesce(json_extract(${row}.body, '$.quantityG'), 0)`;

/** What triggers do, by what happens to a table. */
const LEDGER_TRIGGERS: readonly (readonly [when: string, does: string])[] = [
  [
    'insert on lots',
    `insert into lot_ledgers (lot_id, material_id, left_g) values (new.id, new.material_id, ${QUANTITY('new')})`,
  ],
  [
    'update on lots',
    `update lot_ledgers set material_id = new.material_id, left_g = left_g + ${QUANTITY('new')} - ${QUANTITY('old')}
     where lot_id = new.id`,
  ],
  [
    'insert on stock_movements',
    'update lot_ledgers set left_g = left_g - new.mass_g where lot_id = new.lot_id',
  ],
  [
    'delete on stock_movements',
    'update lot_ledgers set left_g = left_g + old.mass_g where lot_id = old.lot_id',
  ],
  [
    'update on stock_movements',
    `update lot_ledgers set left_g = left_g + old.mass_g where lot_id = old.lot_id;
     update lot_ledgers set left_g = left_g - new.mass_g where lot_id = new.lot_id`,
  ],
];

const triggerOf = (when: string) => `ledger_${when.replaceAll(' ', '_')}`;

/** What is left of every lot, beside the ledger. Triggers keep it, whatever writes a lot or a movement. */
async function keepLedgers(knex: Knex): Promise<void> {
  await knex.schema.createTable('lot_ledgers', (table) => {
    table.string('lot_id').primary().references('lots.id').onDelete('CASCADE');
    table.string('material_id').notNullable().index();
    table.float('left_g').notNullable();
  });
  await knex.raw(
    `insert into lot_ledgers (lot_id, material_id, left_g)
     select id, material_id, ${QUANTITY('lots')} - coalesce((select sum(mass_g) from stock_movements where lot_id = lots.id), 0)
     from lots`,
  );
  await knex.raw('create index lots_in_use on lot_ledgers (material_id) where abs(left_g) > 0.0000005');
  for (const [when, does] of LEDGER_TRIGGERS)
    await knex.raw(`create trigger ${triggerOf(when)} after ${when} begin ${does}; end`);
}

/** What is asked by what stands within a row. */
const INDICES: readonly (readonly [name: string, on: string])[] = [
  ['lots_made_here', "lots (json_extract(body, '$.ofBatch'))"],
  ['lots_priced', "lots (material_id, received_on) where json_extract(body, '$.price') is not null"],
  ['labels_of_batch', "issued_labels (product_id, json_extract(body, '$.batchCode'))"],
];

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
  await keepLedgers(knex);
  for (const [name, on] of INDICES) await knex.raw(`create index ${name} on ${on}`);
}

export async function down(knex: Knex): Promise<void> {
  for (const [name] of INDICES) await knex.raw(`drop index ${name}`);
  for (const [when] of LEDGER_TRIGGERS) await knex.raw(`drop trigger ${triggerOf(when)}`);
  await knex.schema.dropTable('lot_ledgers');
  await knex.schema.alterTable('batches', (table) => {
    table.dropIndex(['product_id', 'started_at']);
  });
  for (const table of ['batch_warmth', 'batch_sales', 'batch_standings']) await knex.schema.dropTable(table);
}
