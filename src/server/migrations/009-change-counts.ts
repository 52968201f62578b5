import type { Knex } from 'knex';

/** How many rows a change touches, and how many get worse, beside what was found: a list of changes reads only these. */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.alterTable('changes', (table) => {
    table.integer('touched');
    table.integer('worse');
  });
  await knex('changes')
    .whereNotNull('result')
    .update({
      touched: knex.raw("json_array_length(result, '$.effects')"),
      worse: knex.raw("json_extract(result, '$.worse')"),
    });
}

export async function down(knex: Knex): Promise<void> {
  await knex.schema.alterTable('changes', (table) => {
    table.dropColumn('touched');
    table.dropColumn('worse');
  });
}
