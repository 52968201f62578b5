/**
 * Opening an archive, on a thread: looked over, then built into a database of its own beside the live one, so that
 * what is compared and taken is already of this program's make. Nothing of it touches the live database.
 */
import { createHash } from 'node:crypto';
import { statfsSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import knex from 'knex';
import { foldBatch } from '../../core/batch/fold';
import type { BatchEvent } from '../../core/batch/types';
import { openDatabase } from '../database';
import { archiveFault, OWN_SETTINGS } from '../doors/archive';
import { MIGRATION_NAMES, migrationSource } from '../migrations';
import { storeFault } from '../store/faults';
import { jsonRows } from './json-rows';
import { ARCHIVE_FORMAT, BAR_TABLES, TABLES, THINGS, type Manifest, type Thing } from './tables';
import { readZip, Refusal, MOST_FILES, type OpenZip } from './zip';

/** The manifest, and one file that is not a table, whole in memory. */
const LARGEST_MANIFEST = 32_000_000;
const LARGEST_FILE = 128_000_000;
/** So much of the disk is left free whatever comes in. */
const DISK_RESERVE = 256_000_000;

const parse = (bytes: Uint8Array): unknown =>
  JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));

function isManifest(value: unknown): value is Manifest {
  const { format, of, title, migrations, tables, files } = (value ?? {}) as Partial<Manifest>;
  const isText = (one: unknown) => typeof one === 'string';
  return (
    format === ARCHIVE_FORMAT &&
    (of === 'everything' || of === 'bar') &&
    isText(title) &&
    Array.isArray(migrations) &&
    migrations.every(isText) &&
    Array.isArray(tables) &&
    tables.every((name) => TABLES.some((one) => one.name === name)) &&
    Array.isArray(files) &&
    files.length <= MOST_FILES &&
    files.every((one) => isText(one?.path) && isText(one?.sha256))
  );
}

async function manifestOf(zip: OpenZip): Promise<Manifest> {
  let found: unknown = null;
  try {
    found = parse(await zip.whole('manifest.json', LARGEST_MANIFEST));
  } catch {
    // Said below.
  }
  if (!isManifest(found))
    throw new Refusal('It is no archive of this kind: its manifest is missing or reads otherwise.');
  const unknown = found.migrations.filter((name, at) => name !== MIGRATION_NAMES[at]);
  if (unknown.length > 0)
    throw new Refusal('It was made by a newer Proportia. Start that version, or ask for an older file.');
  const foreign = found.of === 'bar' ? found.tables.filter((name) => !BAR_TABLES.includes(name)) : [];
  if (foreign.length > 0)
    throw new Refusal(`It is of one bar and brings ${foreign.join(', ')}, which are none of a bar’s things.`);
  const missing = found.files.find(({ path }) => !zip.paths.has(path));
  if (missing) throw new Refusal(`${missing.path} is missing.`);
  return found;
}

/** Reads what was not read yet, and holds the sum of every file against what the manifest says of it. */
async function checkSums(zip: OpenZip, { files }: Manifest): Promise<void> {
  for (const { path, sha256 } of files) {
    // The database file is for other programs; what is read here are the tables.
    if (path === 'proportia.sqlite') continue;
    if (!zip.sums.has(path)) for await (const _ of zip.read(path));
    if (zip.sums.get(path) !== sha256) throw new Refusal(`${path} was changed since the archive was made.`);
  }
}

type Row = Record<string, unknown>;

interface ColumnInfo {
  name: string;
  type: string;
  notnull: number;
}

function valueOf(value: unknown, { name, type, notnull }: ColumnInfo, table: string): unknown {
  const kind = type.toLowerCase();
  const wrong = () => new Refusal(`${table}: ${name} is not what it has to be.`);
  if (kind === 'json') return value === null && notnull === 0 ? null : JSON.stringify(value ?? null);
  if (value === null) {
    if (notnull) throw wrong();
    return null;
  }
  const isNumber = kind === 'integer' || kind === 'float' || kind === 'boolean';
  if (isNumber ? typeof value !== 'number' || !Number.isFinite(value) : typeof value !== 'string')
    throw wrong();
  return value;
}

/** The bytes of a file that a row names. */
async function blobOf(value: unknown, zip: OpenZip, table: string): Promise<Buffer> {
  const path = (value as { file?: unknown } | null)?.file;
  if (typeof path !== 'string' || !zip.paths.has(path))
    throw new Refusal(`${table}: a file that it names is missing.`);
  return zip.whole(path, LARGEST_FILE);
}

/** Rows of a table as they come out of the archive; a Refusal where they are none. */
async function* rowsOf(zip: OpenZip, name: string): AsyncGenerator<unknown, void> {
  const path = `data/${name}.json`;
  if (!zip.paths.has(path)) throw new Refusal(`${path} is missing or is no list.`);
  try {
    yield* jsonRows(zip.read(path));
  } catch (error) {
    if (error instanceof SyntaxError || error instanceof TypeError)
      throw new Refusal(`${path} is missing or is no list.`);
    throw error;
  }
}

/** Writes the rows of a table as they are in the archive, each held against the shape that its door has. */
async function fillTable(db: Database.Database, name: string, zip: OpenZip): Promise<void> {
  const columns = db.pragma(`table_info(${name})`) as ColumnInfo[];
  const known = new Set(columns.map((column) => column.name));
  const insert = db.prepare(
    `insert into ${name} (${columns.map((column) => column.name).join(', ')}) values (${columns.map(() => '?').join(', ')})`,
  );
  for await (const row of rowsOf(zip, name)) {
    if (typeof row !== 'object' || row === null || Object.keys(row).some((key) => !known.has(key)))
      throw new Refusal(`data/${name}.json holds a row that is not one of ${name}.`);
    const given = row as Row;
    // How a house keeps itself is its own affair.
    if (name === 'settings' && OWN_SETTINGS.includes(String(given.key))) continue;
    const fault = archiveFault(name, given);
    if (fault !== null)
      throw new Refusal(
        `data/${name}.json, ${String(given.id ?? given.key ?? given.product_id).slice(0, 80)}: ${fault}`,
      );
    const values: unknown[] = [];
    for (const column of columns) {
      const value = given[column.name] ?? null;
      const isBlob = column.type.toLowerCase() === 'blob';
      values.push(isBlob ? await blobOf(value, zip, name) : valueOf(value, column, name));
    }
    insert.run(...values);
  }
}

/** Writes every table; the database is nobody else's, so that one that was cut off is simply thrown away. */
async function fill(db: Database.Database, { tables }: Manifest, zip: OpenZip): Promise<void> {
  db.pragma('foreign_keys = OFF');
  db.pragma('synchronous = OFF');
  db.exec('begin');
  for (const { name } of TABLES.filter((one) => tables.includes(one.name))) await fillTable(db, name, zip);
  db.exec('commit');
}

function canFollow(events: readonly { body: string }[]): boolean {
  try {
    return foldBatch(events.map(({ body }) => JSON.parse(body) as BatchEvent)) !== null;
  } catch {
    return false;
  }
}

/** What every screen relies on besides the shape of each row: nothing refers to what is missing, batches can be followed. */
function lookOver(db: Database.Database): void {
  const [orphan] = db.pragma('foreign_key_check') as { table: string }[];
  if (orphan) throw new Refusal(`A row of ${orphan.table} refers to one that is missing.`);
  const all = <T>(query: string) => db.prepare(query).all() as T[];
  for (const { id } of all<{ id: string }>('select id from batches')) {
    const events = all<{ body: string }>(
      `select body from batch_events where batch_id = '${id.replaceAll("'", "''")}' order by seq`,
    );
    if (!canFollow(events)) throw new Refusal(`The batch ${id} cannot be followed from its events.`);
  }
}

export type ThingState = 'new' | 'same' | 'different';

export interface ArchiveThing {
  thing: Thing;
  id: string;
  title: string;
  state: ThingState;
}

/** All rows of every thing as one text, by thing and id; what says nothing of the thing itself is left out. */
function textsOf(db: Database.Database, tables: readonly string[], only: ReadonlySet<string> | null) {
  const texts = new Map<string, { thing: Thing; id: string; title: string; hash: string }>();
  const hashes = new Map<string, ReturnType<typeof createHash>>();
  for (const { name, thing, owner, title, apart = [] } of TABLES.filter((one) => tables.includes(one.name))) {
    const columns = (db.pragma(`table_info(${name})`) as ColumnInfo[])
      .map((column) => column.name)
      .filter((column) => !apart.includes(column));
    const rows = db
      .prepare(
        `select ${owner} as "of", ${title ?? 'null'} as "called", ${columns.join(', ')} from ${name} order by 1, ${columns.map((_, at) => at + 3).join(', ')}`,
      )
      .iterate() as IterableIterator<Row>;
    for (const { of, called, ...row } of rows) {
      const key = `${thing} ${String(of)}`;
      if (only && !only.has(key)) continue;
      if (called !== null || !texts.has(key))
        texts.set(key, { thing, id: String(of), title: String(called ?? of), hash: '' });
      const hash = hashes.get(key) ?? createHash('sha256');
      hashes.set(key, hash);
      for (const column of columns) {
        const value = row[column];
        hash.update(value instanceof Buffer ? value : `${name} ${column} ${JSON.stringify(value)}\n`);
      }
    }
  }
  for (const [key, text] of texts) text.hash = hashes.get(key)!.digest('hex');
  return texts;
}

/** What of an archive is new here, the same, or different. */
export function compareArchive({
  incoming,
  live,
  tables,
}: {
  incoming: string;
  live: string;
  tables: string[];
}): ArchiveThing[] {
  const [theirs, ours] = [new Database(incoming, { readonly: true }), new Database(live, { readonly: true })];
  try {
    const there = textsOf(theirs, tables, null);
    const here = textsOf(ours, tables, new Set(there.keys()));
    const things = [...there].map(([key, { thing, id, title, hash }]): ArchiveThing => {
      const own = here.get(key);
      return { thing, id, title, state: !own ? 'new' : own.hash === hash ? 'same' : 'different' };
    });
    return things.sort((a, b) => THINGS.indexOf(a.thing) - THINGS.indexOf(b.thing));
  } finally {
    theirs.close();
    ours.close();
  }
}

export type Unpacked = { ok: true; manifest: Manifest } | { ok: false; message: string };

/** Where the disk has no room for what it would become, it is refused before anything is written. */
function requireRoom(zip: OpenZip, into: string): void {
  const { bavail, bsize } = statfsSync(dirname(into));
  if (zip.bytes > bavail * bsize - DISK_RESERVE)
    throw new Refusal('There is no room on the disk for what it holds. Make room and send it again.');
}

/** Opens an archive and builds it into the database of a folder. */
export async function unpackArchive({ zip: file, into }: { zip: string; into: string }): Promise<Unpacked> {
  let zip: OpenZip | null = null;
  let old: Database.Database | null = null;
  try {
    zip = await readZip(file);
    requireRoom(zip, into);
    const manifest = await manifestOf(zip);
    const known: typeof migrationSource = {
      ...migrationSource,
      getMigrations: () => Promise.resolve([...manifest.migrations]),
    };
    const empty = knex({ client: 'better-sqlite3', connection: { filename: into }, useNullAsDefault: true });
    await empty.migrate.latest({ migrationSource: known });
    await empty.destroy();
    old = new Database(into);
    await fill(old, manifest, zip);
    await checkSums(zip, manifest);
    old.close();
    await (await openDatabase(dirname(into))).destroy();
    const db = new Database(into);
    lookOver(db);
    db.close();
    return { ok: true, manifest };
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, message: error.message };
    const known = storeFault(error);
    if (known && known.kind !== 'migration') throw error;
    return { ok: false, message: `It does not hold together: ${(error as Error).message.slice(0, 200)}` };
  } finally {
    zip?.close();
    old?.close();
  }
}
