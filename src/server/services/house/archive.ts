/** Everything out and in, in open formats; a bar as one file to hand over. */
import { randomUUID } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  rmSync,
  statfsSync,
  statSync,
  readdirSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import type { Knex } from 'knex';
import type { ArchivePreview } from '../../../core/records/house';
import type { House } from '../../house';
import { takeThings } from '../../archive/take';
import type { ArchiveThing } from '../../archive/unpack-job';
import type { Manifest } from '../../archive/tables';
import { dataFolder } from '../../config';
import { DATABASE_FILE } from '../../database';
import { fault } from '../../http';
import { JobEnded } from '../../jobs/ended';
import { onThread } from '../../jobs/threads';
import { makeBackup } from './backups';

const LIMIT_MS = 180_000;
/** More time for each so many bytes, so that a large house has as much as a small one. */
const MS_PER_MB = 1000;
const MB = 1024 * 1024;
/** So much of the disk is left free whatever comes in. */
const DISK_RESERVE = 256 * MB;
const INCOMING = 'incoming';
const KEPT_MS = 24 * 3_600_000;
const ID = /^[0-9a-f-]{36}$/;

function workFolder(): string {
  const folder = join(dataFolder(), INCOMING);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (Date.now() - statSync(path).mtimeMs > KEPT_MS) rmSync(path, { recursive: true, force: true });
  }
  return folder;
}

let isPacking = false;

const limitFor = (file: string) => LIMIT_MS + Math.ceil((MS_PER_MB * statSync(file).size) / MB);

/** Packs everything, or one bar; 404 where there is no such bar. Answers the ZIP as a stream, and its bytes. */
export async function packedArchive(
  { now, zone }: House,
  bar: string | null,
): Promise<{ body: ReadableStream<Uint8Array>; bytes: number }> {
  if (isPacking) throw fault(429, 'busy', 'An archive is being packed just now. Ask again in a moment.');
  isPacking = true;
  const folder = join(workFolder(), randomUUID());
  const [copy, into] = [join(folder, DATABASE_FILE), join(folder, 'archive.zip')];
  try {
    mkdirSync(folder);
    await onThread('backUp', { file: join(dataFolder(), DATABASE_FILE), into: copy }, { limitMs: LIMIT_MS });
    const job = { file: copy, into, madeAt: now, bar, zone };
    const packed = await onThread('packArchive', job, { limitMs: limitFor(copy) });
    if (!packed) throw fault(404, 'unknown-product', `There is no product "${bar}".`, 'id');
    // Open, it is read to its end though its name is taken away already.
    const handle = openSync(into, 'r');
    const body = Readable.toWeb(createReadStream('', { fd: handle })) as ReadableStream<Uint8Array>;
    return { body, bytes: packed.bytes };
  } finally {
    isPacking = false;
    rmSync(folder, { recursive: true, force: true });
  }
}

async function receive(request: Request, file: string): Promise<void> {
  const { bavail, bsize } = statfsSync(dirname(file));
  const room = bavail * bsize - DISK_RESERVE;
  const tooLarge = () =>
    fault(413, 'too-large', 'There is no room on the disk for this file. Make room and send it again.');
  if (Number(request.headers.get('content-length') ?? 0) > room) throw tooLarge();
  if (!request.body) throw fault(400, 'empty', 'Send the archive as the body.');
  let size = 0;
  const counted = Readable.fromWeb(request.body as ReadableStream).map((part: Uint8Array) => {
    size += part.byteLength;
    if (size > room) throw tooLarge();
    return part;
  });
  await pipeline(counted, createWriteStream(file, { mode: 0o600 }));
}

/** Takes an archive in to be looked at: nothing of this house is touched. 422 with why where it is none. */
export async function receiveArchive(request: Request): Promise<ArchivePreview> {
  const id = randomUUID();
  const folder = join(workFolder(), id);
  mkdirSync(folder);
  try {
    const zip = join(folder, 'archive.zip');
    await receive(request, zip);
    const opened = await onThread(
      'unpackArchive',
      { zip, into: join(folder, DATABASE_FILE) },
      { limitMs: limitFor(zip) },
    );
    if (!opened.ok) throw fault(422, 'no-archive', opened.message);
    rmSync(zip);
    writeFileSync(join(folder, 'manifest.json'), JSON.stringify(opened.manifest));
    return await previewOf(id);
  } catch (error) {
    rmSync(folder, { recursive: true, force: true });
    if (error instanceof JobEnded)
      throw fault(
        422,
        'no-archive',
        'This file takes too long to open. It may be too large or not an archive.',
      );
    throw error;
  }
}

interface Received {
  folder: string;
  manifest: Manifest;
  file: string;
}

function received(id: string): Received {
  const folder = join(workFolder(), ID.test(id) ? id : 'none');
  const note = join(folder, 'manifest.json');
  if (!existsSync(note))
    throw fault(404, 'unknown-archive', 'There is no such archive waiting. Send it again.', 'id');
  const manifest = JSON.parse(readFileSync(note, 'utf8')) as Manifest;
  return { folder, manifest, file: join(folder, DATABASE_FILE) };
}

async function thingsOf({ file, manifest }: Received): Promise<ArchiveThing[]> {
  const live = join(dataFolder(), DATABASE_FILE);
  return onThread(
    'compareArchive',
    { incoming: file, live, tables: manifest.tables },
    { limitMs: limitFor(file) },
  );
}

/** What of a waiting archive is new here, the same, or different. */
export async function previewOf(id: string): Promise<ArchivePreview> {
  const waiting = received(id);
  const { of, title, madeAt } = waiting.manifest;
  return { id, of, title, madeAt, things: await thingsOf(waiting) };
}

/**
 * Takes what is new, or what differs as well, after a backup. Batches that went on differently here stay as they are:
 * what was really made is not exchanged. Answers what was taken.
 */
export async function takeArchive(
  db: Knex,
  id: string,
  which: 'new' | 'all',
): Promise<{ taken: number; left: number }> {
  const waiting = received(id);
  const things = await thingsOf(waiting);
  const chosen = things.filter(
    ({ thing, state }) => state === 'new' || (which === 'all' && state === 'different' && thing !== 'batch'),
  );
  await makeBackup(db, 'beforeImport');
  await takeThings(db, waiting.file, chosen, waiting.manifest.tables);
  rmSync(waiting.folder, { recursive: true, force: true });
  const changed = things.filter(({ state }) => state !== 'same').length;
  return { taken: chosen.length, left: changed - chosen.length };
}

/** Lets a waiting archive go. */
export function dropArchive(id: string): void {
  rmSync(received(id).folder, { recursive: true, force: true });
}
