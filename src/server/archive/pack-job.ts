/** Packing an archive, on a thread: tables as JSON with schemas, blobs as files, lists for a spreadsheet, the database itself. */
import { createHash } from 'node:crypto';
import { readFileSync, renameSync, writeFileSync } from 'node:fs';
import Database from 'better-sqlite3';
import { zipSync, type Zippable } from 'fflate';
import Papa from 'papaparse';
import { ARCHIVE_FORMAT, BAR_TABLES, TABLES, type Manifest } from './tables';

type Row = Record<string, unknown>;

interface ColumnInfo {
  name: string;
  type: string;
  notnull: number;
}

const encode = (text: string) => new TextEncoder().encode(text);
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const columnsOf = (db: Database.Database, table: string) => db.pragma(`table_info(${table})`) as ColumnInfo[];

const TYPES: Record<string, object> = {
  integer: { type: 'integer' },
  boolean: { type: 'integer', enum: [0, 1] },
  float: { type: 'number' },
  blob: { type: 'object', required: ['file'], properties: { file: { type: 'string' } } },
  json: {},
};

/** The JSON schema of a table's rows. */
function schemaOf(table: string, columns: readonly ColumnInfo[]) {
  const plain = (type: string) => TYPES[type] ?? { type: 'string' };
  const properties = Object.fromEntries(
    columns.map(({ name, type, notnull }) => {
      const own = plain(type.toLowerCase().replace(/\(.*$/, ''));
      const isLoose = notnull === 0 && 'type' in own;
      return [name, isLoose ? { anyOf: [own, { type: 'null' }] } : own];
    }),
  );
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: table,
    type: 'array',
    items: {
      type: 'object',
      additionalProperties: false,
      required: columns.map(({ name }) => name),
      properties,
    },
  };
}

/** Which rows of a bar handed over alone: its own, and those of the materials it holds, with what they are made of. */
const BAR_WHERE: Record<string, string> = {
  materials: 'id in (select id from wanted)',
  documents: 'material_id in (select id from wanted)',
  products: 'id = @bar',
  formula_versions: 'product_id = @bar',
  product_materials: 'product_id = @bar',
  wraps: 'product_id = @bar',
};
const WANTED = `with recursive wanted (id) as (
  select json_extract(line.value, '$.material') from formula_versions as v, json_each(v.formula, '$.lines') as line
  where v.product_id = @bar
  union
  select json_extract(part.value, '$.material') from wanted join materials as m on m.id = wanted.id,
         json_each(m.mix) as part
) `;

function rowsOf(db: Database.Database, table: string, bar: string | null): Row[] {
  const order = columnsOf(db, table).some(({ name }) => name === 'position') ? 'position' : 'rowid';
  if (bar === null) return db.prepare(`select * from ${table} order by ${order}`).all() as Row[];
  return db
    .prepare(`${WANTED} select * from ${table} where ${BAR_WHERE[table]} order by ${order}`)
    .all({ bar }) as Row[];
}

function filesOf(db: Database.Database, bar: string | null): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  const tables = TABLES.filter(({ name }) => bar === null || BAR_TABLES.includes(name));
  for (const { name, file } of tables) {
    const columns = columnsOf(db, name);
    const json = columns.filter(({ type }) => type === 'json').map((one) => one.name);
    const rows = rowsOf(db, name, bar).map((row, at) => {
      const out: Row = { ...row };
      for (const column of json)
        if (typeof row[column] === 'string') out[column] = JSON.parse(row[column]) as unknown;
      if (file) {
        // Numbered: ids are anything, names of files are safe on every system.
        const path = `${file.folder}/${String(at + 1).padStart(5, '0')}.${file.ending(row)}`;
        files.set(path, new Uint8Array(row[file.column] as Buffer));
        out[file.column] = { file: path };
      }
      return out;
    });
    files.set(`data/${name}.json`, encode(JSON.stringify(rows, null, 1)));
    files.set(`schema/${name}.schema.json`, encode(JSON.stringify(schemaOf(name, columns), null, 1)));
  }
  return files;
}

const LISTS: Record<string, string> = {
  bars: `select name, json_extract(body, '$.identity') as "what it is", json_extract(body, '$.note') as note,
         (select group_concat(value, ' ') from json_each(body, '$.markets')) as markets, put_away_on as "put away"
         from products order by position`,
  formulas: `select p.name as bar, v.number as version, coalesce(v.name, '') as "kept as",
             json_extract(line.value, '$.material') as material, json_extract(line.value, '$.stage') as stage,
             json_extract(line.value, '$.amount.value') as amount, json_extract(line.value, '$.amount.unit') as unit
             from products as p join formula_versions as v on v.product_id = p.id,
             json_each(v.formula, '$.lines') as line order by p.position, v.number, line.key`,
  materials: 'select id, name, kind, supplier from materials order by name',
  papers: `select m.name as material, d.type, d.number, d.edition, d.issued_on as issued,
           json_extract(d.body, '$.issuer') as issuer from documents as d join materials as m on m.id = d.material_id
           order by m.name, d.issued_on`,
  lots: `select m.name as material, json_extract(l.body, '$.code') as lot, json_extract(l.body, '$.supplier') as supplier,
         l.received_on as received, json_extract(l.body, '$.bestBefore') as "best before",
         json_extract(l.body, '$.quantityG') as grams, json_extract(l.body, '$.price') as price
         from lots as l join materials as m on m.id = l.material_id order by m.name, l.received_on`,
  batches: `select b.code, p.name as bar, substr(b.started_at, 1, 10) as begun, b.state from batches as b
            join products as p on p.id = b.product_id order by b.started_at`,
  sold: `select b.code as batch, p.name as bar, substr(json_extract(e.body, '$.at'), 1, 10) as day,
         json_extract(e.body, '$.bars') as bars, json_extract(e.body, '$.how') as how, json_extract(e.body, '$.to') as "where",
         json_extract(e.body, '$.market') as market, json_extract(e.body, '$.note') as note
         from batch_events as e join batches as b on b.id = e.batch_id join products as p on p.id = b.product_id
         where json_extract(e.body, '$.type') = 'moved' order by day`,
};

function addLists(db: Database.Database, files: Map<string, Uint8Array>): void {
  for (const [name, query] of Object.entries(LISTS)) {
    const statement = db.prepare(query);
    const fields = statement.columns().map((column) => column.name);
    const data = statement.raw().all() as unknown[][];
    files.set(`lists/${name}.csv`, encode(Papa.unparse({ fields, data }, { escapeFormulae: true })));
  }
}

export interface PackJob {
  /** A copy of the database that nobody writes to. */
  file: string;
  into: string;
  madeAt: string;
  /** The bar that is handed over alone; null for everything. */
  bar: string | null;
}

/** Writes an archive. Answers null where there is no such bar. */
export function packArchive({ file, into, madeAt, bar }: PackJob): { bytes: number } | null {
  const db = new Database(file);
  try {
    // The address of the calendar is a secret of this house alone.
    db.prepare("delete from settings where key = 'calendarKey'").run();
    db.pragma('journal_mode = DELETE');
    const product =
      bar === null
        ? null
        : (db.prepare('select name from products where id = ?').get(bar) as { name: string } | undefined);
    if (product === undefined) return null;
    const files = filesOf(db, bar);
    if (bar === null) {
      addLists(db, files);
      files.set('proportia.sqlite', new Uint8Array(readFileSync(file)));
    }
    const migrations = (
      db.prepare('select name from knex_migrations order by id').all() as { name: string }[]
    ).map(({ name }) => name);
    const manifest: Manifest = {
      format: ARCHIVE_FORMAT,
      madeAt,
      of: bar === null ? 'everything' : 'bar',
      title: product?.name ?? 'Everything',
      migrations,
      tables: [...files.keys()].flatMap((path) => /^data\/(.*)\.json$/.exec(path)?.[1] ?? []),
      files: [...files].map(([path, bytes]) => ({ path, bytes: bytes.byteLength, sha256: sha256(bytes) })),
    };
    const zip: Zippable = { 'manifest.json': encode(JSON.stringify(manifest, null, 1)) };
    for (const [path, bytes] of files)
      zip[path] = /\.(?:png|jpg|webp|pdf)$/.test(path) ? [bytes, { level: 0 }] : bytes;
    const packed = zipSync(zip, { level: 6 });
    writeFileSync(`${into}.part`, packed, { mode: 0o600 });
    renameSync(`${into}.part`, into);
    return { bytes: packed.byteLength };
  } finally {
    db.close();
  }
}
