import type { Knex } from 'knex';
import { foldBatch } from '../../core/batch/fold';
import type { BatchEvent } from '../../core/batch/types';
import { weighedOf } from '../../core/batch/weighed';
import { usualZone } from '../config';

/** What was weighed of every batch on file. */
async function fillWeighed(knex: Knex): Promise<void> {
  const batches: { id: string }[] = await knex('batches').select('id');
  for (const { id } of batches) {
    const rows: { body: string }[] = await knex('batch_events')
      .where('batch_id', id)
      .orderBy('seq')
      .select('body');
    const batch = foldBatch(rows.map(({ body }) => JSON.parse(body) as BatchEvent));
    const weighed = batch && weighedOf(batch, usualZone());
    if (weighed)
      await knex('batches')
        .where('id', id)
        .update({ weighed: JSON.stringify(weighed) });
  }
}

/** Changes that were looked at, what they touch, what was decided, and the tasks that follow. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('batches', (table) => {
    table.json('weighed');
  });
  await fillWeighed(knex);
  await knex.schema.createTable('changes', (table) => {
    table.string('id').primary();
    table.string('at').notNullable().index();
    table.json('body').notNullable();
    table.string('words').notNullable();
    table.string('state').notNullable();
    table.string('stamp').notNullable();
    table.json('result');
    table.json('decision');
  });
  await knex.schema.createTable('tasks', (table) => {
    table.string('id').primary();
    table.string('change_id').references('changes.id').onDelete('RESTRICT').index();
    table.string('at').notNullable();
    table.string('done_at').index();
    table.json('body').notNullable();
  });
}

export async function down(knex: Knex): Promise<void> {
  for (const table of ['tasks', 'changes']) await knex.schema.dropTable(table);
  await knex.schema.alterTable('batches', (table) => table.dropColumn('weighed'));
}
