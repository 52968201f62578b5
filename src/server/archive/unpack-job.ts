/**
 * Opening an archive, on a thread: looked over, then built into a database of its own beside the live one, so that
 * what is compared and taken is already of this program's make. Nothing of it touches the live database.
 */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import { unzipSync } from 'fflate';
import knex from 'knex';
import { foldBatch } from '../../core/batch/fold';
import type { BatchEvent } from '../../core/batch/types';
import { openDatabase } from '../database';
import { checkFormula, checkMaterial } from '../doors/stored';
import { MIGRATION_NAMES, migrationSource } from '../migrations';
import { storeFault } from '../store/faults';
import { ARCHIVE_FORMAT, TABLES, THINGS, type Manifest, type Thing } from './tables';

const MOST_FILES = 50_000;
const MOST_BYTES = 1_500_000_000;
const SAFE = /^(?:[\w-]+\/)?[\w.-]+$/;

/** Why an archive is not taken, in words. */
class Refusal extends Error {}

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const parse = (bytes: Uint8Array): unknown =>
  JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));

function unzip(file: string): Record<string, Uint8Array> {
  let [count, bytes] = [0, 0];
  try {
    return unzipSync(new Uint8Array(readFileSync(file)), {
      filter: ({ name, originalSize }) => {
        count++;
        bytes += originalSize;
        if (count > MOST_FILES || bytes > MOST_BYTES)
          throw new Refusal('It holds more than is taken at once.');
        if (!SAFE.test(name) || name.includes('..'))
          throw new Refusal(`It holds a file by the name ${name.slice(0, 80)}.`);
        // The database file is for other programs; what is read here are the tables.
        return name !== 'proportia.sqlite';
      },
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal('This is no ZIP file, or it was cut off on the way.');
  }
}

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
    files.every((one) => isText(one?.path) && isText(one?.sha256))
  );
}

function manifestOf(files: Record<string, Uint8Array>): Manifest {
  const bytes = files['manifest.json'];
  let found: unknown = null;
  try {
    found = bytes && parse(bytes);
  } catch {
    // Said below.
  }
  if (!isManifest(found))
    throw new Refusal('It is no archive of this kind: its manifest is missing or reads otherwise.');
  const unknown = found.migrations.filter((name, at) => name !== MIGRATION_NAMES[at]);
  if (unknown.length > 0)
    throw new Refusal('It was made by a newer Proportia. Start that version, or ask for an older file.');
  for (const { path, sha256: wanted } of found.files) {
    if (path === 'proportia.sqlite') continue;
    const here = files[path];
    if (!here) throw new Refusal(`${path} is missing.`);
    if (sha256(here) !== wanted) throw new Refusal(`${path} was changed since the archive was made.`);
  }
  return found;
}

type Row = Record<string, unknown>;

interface ColumnInfo {
  name: string;
  type: string;
  notnull: number;
}

function valueOf(
  value: unknown,
  { name, type, notnull }: ColumnInfo,
  files: Record<string, Uint8Array>,
  table: string,
): unknown {
  const kind = type.toLowerCase();
  const wrong = () => new Refusal(`${table}: ${name} is not what it has to be.`);
  if (kind === 'json') return value === null && notnull === 0 ? null : JSON.stringify(value ?? null);
  if (kind === 'blob') {
    const path = (value as { file?: unknown } | null)?.file;
    const bytes = typeof path === 'string' ? files[path] : undefined;
    if (!bytes) throw wrong();
    return Buffer.from(bytes);
  }
  if (value === null) {
    if (notnull) throw wrong();
    return null;
  }
  const isNumber = kind === 'integer' || kind === 'float' || kind === 'boolean';
  if (isNumber ? typeof value !== 'number' || !Number.isFinite(value) : typeof value !== 'string')
    throw wrong();
  return value;
}

/** Writes the rows of every table as they are in the archive. */
function fill(db: Database.Database, { tables }: Manifest, files: Record<string, Uint8Array>): void {
  db.pragma('foreign_keys = OFF');
  db.transaction(() => {
    for (const { name } of TABLES.filter((one) => tables.includes(one.name))) {
      const columns = db.pragma(`table_info(${name})`) as ColumnInfo[];
      const bytes = files[`data/${name}.json`];
      const rows = bytes ? parse(bytes) : null;
      if (!Array.isArray(rows)) throw new Refusal(`data/${name}.json is missing or is no list.`);
      const known = new Set(columns.map((column) => column.name));
      const insert = db.prepare(
        `insert into ${name} (${columns.map((column) => column.name).join(', ')}) values (${columns.map(() => '?').join(', ')})`,
      );
      for (const row of rows as (Row | null)[]) {
        if (typeof row !== 'object' || row === null || Object.keys(row).some((key) => !known.has(key)))
          throw new Refusal(`data/${name}.json holds a row that is not one of ${name}.`);
        insert.run(...columns.map((column) => valueOf(row[column.name] ?? null, column, files, name)));
      }
    }
  })();
}

function canFollow(events: readonly { body: string }[]): boolean {
  try {
    return foldBatch(events.map(({ body }) => JSON.parse(body) as BatchEvent)) !== null;
  } catch {
    return false;
  }
}

/** What every screen relies on: formulas and materials as their doors take them, batches that can be followed. */
function lookOver(db: Database.Database): void {
  const [orphan] = db.pragma('foreign_key_check') as { table: string }[];
  if (orphan) throw new Refusal(`A row of ${orphan.table} refers to one that is missing.`);
  const all = <T>(query: string) => db.prepare(query).all() as T[];
  for (const { id, formula } of all<{ id: string; formula: string }>(
    'select product_id as id, formula from formula_versions',
  )) {
    const why = checkFormula(JSON.parse(formula));
    if (why) throw new Refusal(`The formula of ${id} is not what it has to be: ${why}`);
  }
  for (const { id, body } of all<{ id: string; body: string }>('select id, body from materials')) {
    const why = checkMaterial(JSON.parse(body));
    if (why) throw new Refusal(`The material ${id} is not what it has to be: ${why}`);
  }
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

/** Opens an archive and builds it into the database of a folder. */
export async function unpackArchive({ zip, into }: { zip: string; into: string }): Promise<Unpacked> {
  try {
    const files = unzip(zip);
    const manifest = manifestOf(files);
    const known: typeof migrationSource = {
      ...migrationSource,
      getMigrations: () => Promise.resolve([...manifest.migrations]),
    };
    const empty = knex({ client: 'better-sqlite3', connection: { filename: into }, useNullAsDefault: true });
    await empty.migrate.latest({ migrationSource: known });
    await empty.destroy();
    const old = new Database(into);
    fill(old, manifest, files);
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
  }
}
