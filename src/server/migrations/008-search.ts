import type { Knex } from 'knex';

/** Where something that can be found stands: its table, and how title, words and address are made of a row. */
interface Source {
  kind: string;
  table: string;
  title: (row: string) => string;
  words: (row: string) => string;
  href: (row: string) => string;
}

const json = (row: string, path: string) => `coalesce(json_extract(${row}.body, '$.${path}'), '')`;
const joined = (...parts: string[]) => parts.join(" || ' ' || ");
const nameOf = (table: string, id: string) => `coalesce((select name from ${table} where id = ${id}), ${id})`;

const SOURCES: Source[] = [
  {
    kind: 'bar',
    table: 'products',
    title: (row) => `${row}.name`,
    words: (row) => joined(json(row, 'note'), json(row, 'identity'), json(row, 'collection')),
    href: (row) => `'/bars/' || ${row}.id`,
  },
  {
    kind: 'material',
    table: 'materials',
    title: (row) => `${row}.name`,
    words: (row) =>
      joined(
        `coalesce(${row}.supplier, '')`,
        `coalesce((select group_concat(json_extract(value, '$.name'), ' ')
                   from json_each(${row}.body, '$.inci')), '')`,
      ),
    href: (row) => `'/cupboard?material=' || ${row}.id`,
  },
  {
    kind: 'lot',
    table: 'lots',
    title: (row) => joined(json(row, 'code'), nameOf('materials', `${row}.material_id`)),
    words: (row) => json(row, 'supplier'),
    href: (row) => `'/cupboard?material=' || ${row}.material_id`,
  },
  {
    kind: 'batch',
    table: 'batches',
    title: (row) => joined(`${row}.code`, nameOf('products', `${row}.product_id`)),
    words: (row) => joined(`substr(${row}.started_at, 1, 10)`, `${row}.state`),
    href: (row) => `'/rack/' || ${row}.id`,
  },
  {
    kind: 'paper',
    table: 'documents',
    title: (row) => joined(`${row}.number`, nameOf('materials', `${row}.material_id`)),
    words: (row) => joined(`${row}.type`, `coalesce(${row}.edition, '')`, json(row, 'issuer')),
    href: (row) => `'/cupboard?material=' || ${row}.material_id`,
  },
  {
    kind: 'label',
    table: 'issued_labels',
    title: (row) => joined(json(row, 'product'), `${row}.market`, `${row}.issued_on`),
    words: (row) => json(row, 'batchCode'),
    href: (row) => `'/wrap/' || ${row}.product_id`,
  },
];

function put({ kind, title, words, href }: Source, row: string): string {
  return `insert into search_items (kind, ref, title, words, href)
          values ('${kind}', ${row}.id, ${title(row)}, ${words(row)}, ${href(row)})
          on conflict (kind, ref) do update
          set title = excluded.title, words = excluded.words, href = excluded.href`;
}

/**
 * One full text index over everything that has a name. Triggers keep it: whatever writes a table, by whatever way,
 * is found the moment it is written.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.schema.createTable('search_items', (table) => {
    table.increments('id');
    table.string('kind').notNullable();
    table.string('ref').notNullable();
    table.string('title').notNullable();
    table.string('words').notNullable();
    table.string('href').notNullable();
    table.unique(['kind', 'ref']);
  });
  await knex.raw(
    `create virtual table search_index using fts5(title, words, content='search_items', content_rowid='id',
     tokenize="trigram remove_diacritics 1")`,
  );
  const into = (row: string) => `values (${row}.id, ${row}.title, ${row}.words)`;
  const out = `insert into search_index (search_index, rowid, title, words)
               values ('delete', old.id, old.title, old.words)`;
  const index = `insert into search_index (rowid, title, words) ${into('new')}`;
  await knex.raw(`create trigger search_in after insert on search_items begin ${index}; end`);
  await knex.raw(`create trigger search_out after delete on search_items begin ${out}; end`);
  await knex.raw(
    `create trigger search_anew after update on search_items
     when old.title <> new.title or old.words <> new.words begin ${out}; ${index}; end`,
  );
  for (const source of SOURCES) {
    const { kind, table } = source;
    await knex.raw(
      `insert into search_items (kind, ref, title, words, href)
       select '${kind}', t.id, ${source.title('t')}, ${source.words('t')}, ${source.href('t')} from ${table} as t`,
    );
    for (const when of ['insert', 'update'])
      await knex.raw(
        `create trigger find_${table}_${when} after ${when} on ${table} begin ${put(source, 'new')}; end`,
      );
    await knex.raw(
      `create trigger find_${table}_delete after delete on ${table}
       begin delete from search_items where kind = '${kind}' and ref = old.id; end`,
    );
  }
  await knex.raw('create index products_in_order on products (put_away_on is not null, position)');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('drop index products_in_order');
  for (const { table } of SOURCES)
    for (const when of ['insert', 'update', 'delete']) await knex.raw(`drop trigger find_${table}_${when}`);
  await knex.raw('drop table search_index');
  await knex.schema.dropTable('search_items');
}
