/** Packing an archive, on a thread: tables as JSON with schemas, blobs as files, lists for a spreadsheet, the database itself. */
import { createHash } from 'node:crypto';
import {
  closeSync,
  copyFileSync,
  createReadStream,
  createWriteStream,
  openSync,
  renameSync,
  statSync,
  writeSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import Database from 'better-sqlite3';
import { ZipFile } from 'yazl';
import { csvOf, LIST_NAMES, listOf } from './lists';
import { OWN_SETTINGS } from '../doors/archive';
import { ARCHIVE_FORMAT, BAR_TABLES, TABLES, type Manifest } from './tables';

type Row = Record<string, unknown>;

interface ColumnInfo {
  name: string;
  type: string;
  notnull: number;
}

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

function rowsOf(db: Database.Database, table: string, bar: string | null): IterableIterator<Row> {
  const order = columnsOf(db, table).some(({ name }) => name === 'position') ? 'position' : 'rowid';
  const all = `select *, rowid as archive_row from ${table}`;
  const rows =
    bar === null
      ? db.prepare(`${all} order by ${order}`).iterate()
      : db.prepare(`${WANTED} ${all} where ${BAR_WHERE[table]} order by ${order}`).iterate({ bar });
  return rows as IterableIterator<Row>;
}

/** What goes into the archive, with its sum: a file on disk, or a blob that is read again when its turn comes. */
interface Packed {
  path: string;
  bytes: number;
  sha256: string;
  add: (zip: ZipFile) => void;
}

/** Pictures and PDFs are packed already. */
const isPacked = (path: string) => /\.(?:png|jpg|webp|pdf)$/.test(path);

function packedText(path: string, text: string): Packed {
  const bytes = Buffer.from(text, 'utf8');
  return {
    path,
    bytes: bytes.byteLength,
    sha256: sha256(bytes),
    add: (zip) => zip.addBuffer(bytes, path),
  };
}

async function packedFile(path: string, file: string): Promise<Packed> {
  const hash = createHash('sha256');
  for await (const part of createReadStream(file)) hash.update(part as Buffer);
  return {
    path,
    bytes: statSync(file).size,
    sha256: hash.digest('hex'),
    add: (zip) => zip.addFile(file, path),
  };
}

/** Reads a blob when the archive comes to it. What it closes over must not hold the blob. */
function readingAgain(
  db: Database.Database,
  table: string,
  column: string,
  rowid: unknown,
  path: string,
  size: number,
): Packed['add'] {
  const read = db.prepare(`select ${column} from ${table} where rowid = ?`).pluck();
  return (zip) =>
    zip.addReadStreamLazy(path, { compress: !isPacked(path), size }, (give) =>
      give(null, Readable.from([read.get(rowid) as Buffer])),
    );
}

/** A blob, read again row by row, so that never all of them are in memory. */
function packedBlob(
  db: Database.Database,
  table: string,
  column: string,
  rowid: unknown,
  path: string,
  blob: Buffer,
): Packed {
  const bytes = blob.byteLength;
  return { path, bytes, sha256: sha256(blob), add: readingAgain(db, table, column, rowid, path, bytes) };
}

/** Writes a table's rows as JSON, a row a line, into a file of the folder; its blobs become files of their own. */
async function packTable(
  db: Database.Database,
  { name, file }: (typeof TABLES)[number],
  bar: string | null,
  folder: string,
): Promise<Packed[]> {
  const columns = columnsOf(db, name);
  const json = columns.filter(({ type }) => type === 'json').map((one) => one.name);
  const packed: Packed[] = [
    packedText(`schema/${name}.schema.json`, JSON.stringify(schemaOf(name, columns), null, 1)),
  ];
  const path = join(folder, `${name}.json`);
  const into = openSync(path, 'w', 0o600);
  let at = 0;
  for (const { archive_row: rowid, ...row } of rowsOf(db, name, bar)) {
    const out: Row = { ...row };
    for (const column of json)
      if (typeof row[column] === 'string') out[column] = JSON.parse(row[column]) as unknown;
    if (file) {
      // Numbered: ids are anything, names of files are safe on every system.
      const named = `${file.folder}/${String(at + 1).padStart(5, '0')}.${file.ending(row)}`;
      packed.push(packedBlob(db, name, file.column, rowid, named, row[file.column] as Buffer));
      out[file.column] = { file: named };
    }
    writeSync(into, `${at === 0 ? '[' : ','}\n${JSON.stringify(out)}`);
    at++;
  }
  writeSync(into, at === 0 ? '[]\n' : '\n]\n');
  closeSync(into);
  packed.push(await packedFile(`data/${name}.json`, path));
  return packed;
}

/** Every list as a file for a spreadsheet. */
const packedLists = (db: Database.Database, zone: string): Packed[] =>
  LIST_NAMES.map((name) => packedText(`lists/${name}.csv`, csvOf(listOf(db, name, zone), { comma: false })));

/** The database as an open file, without what lies beside it as files: a photograph goes out once. */
async function packedDatabase(file: string): Promise<Packed> {
  const thin = `${file}.thin`;
  copyFileSync(file, thin);
  const db = new Database(thin);
  try {
    for (const { name, file: held } of TABLES)
      if (held) db.exec(`update ${name} set ${held.column} = zeroblob(0)`);
    db.exec('vacuum');
  } finally {
    db.close();
  }
  return packedFile('proportia.sqlite', thin);
}

export interface PackJob {
  /** A copy of the database that nobody writes to. */
  file: string;
  into: string;
  madeAt: string;
  /** The bar that is handed over alone; null for everything. */
  bar: string | null;
  /** The zone whose days the lists are in. */
  zone: string;
}

/** Writes an archive as a stream. Answers null where there is no such bar. */
export async function packArchive({
  file,
  into,
  madeAt,
  bar,
  zone,
}: PackJob): Promise<{ bytes: number } | null> {
  const db = new Database(file);
  try {
    const drop = db.prepare('delete from settings where key = ?');
    for (const key of OWN_SETTINGS) drop.run(key);
    db.pragma('journal_mode = DELETE');
    const product =
      bar === null
        ? null
        : (db.prepare('select name from products where id = ?').get(bar) as { name: string } | undefined);
    if (product === undefined) return null;
    const tables = TABLES.filter(({ name }) => bar === null || BAR_TABLES.includes(name));
    const packed: Packed[] = [];
    for (const table of tables) packed.push(...(await packTable(db, table, bar, dirname(into))));
    if (bar === null) packed.push(...packedLists(db, zone), await packedDatabase(file));
    const migrations = db.prepare('select name from knex_migrations order by id').pluck().all() as string[];
    const manifest: Manifest = {
      format: ARCHIVE_FORMAT,
      madeAt,
      of: bar === null ? 'everything' : 'bar',
      title: product?.name ?? 'Everything',
      migrations,
      tables: tables.map(({ name }) => name),
      files: packed.map(({ path, bytes, sha256: sum }) => ({ path, bytes, sha256: sum })),
    };
    const zip = new ZipFile();
    zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), 'manifest.json');
    for (const one of packed) one.add(zip);
    zip.end();
    await pipeline(zip.outputStream, createWriteStream(`${into}.part`, { mode: 0o600 }));
    renameSync(`${into}.part`, into);
    return { bytes: statSync(into).size };
  } finally {
    db.close();
  }
}
