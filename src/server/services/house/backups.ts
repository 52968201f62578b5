/** Backups while the application runs: by time and by hand, kept by age, looked over, copied elsewhere, taken back. */
import { noteFault } from '../../log';
import { createReadStream, statfsSync, statSync } from 'node:fs';
import { copyFile, readdir, rename, rm } from 'node:fs/promises';
import { isAbsolute, join } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import type { Knex } from 'knex';
import { isAhead, isBackupOld, keptByAge, overRoom } from '../../../core/archive/keep';
import {
  BACKUP_REASONS,
  type Backup,
  type BackupReason,
  type BackupsData,
} from '../../../core/records/house';
import { dayOf } from '../../../core/quantities/day';
import { dropAside, putInPlace } from '../../archive/restore';
import {
  backupFile,
  backupFolder,
  backupId,
  dropBackup,
  listBackups,
  noteBackup,
} from '../../archive/backup-files';
import { dataFolder, moment } from '../../config';
import { DATABASE_FILE, replaceDatabase } from '../../database';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { versionOf } from '../../repositories/store';
import { findSetting } from '../../repositories/settings';

const LIMIT_MS = 120_000;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** What is kept by age; what was made before something dangerous is kept as long as the newest few of its kind. */
const MOST_BEFORE = 5;

let copyFault: string | null = null;
/** Whether the last backup that was asked for could not be made. */
let isFailing = false;

/** Copies in the other folder, by the moment and the reason in their names; other files there are none of ours. */
const COPY = /^proportia-((\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})-(\d{3})Z-([A-Za-z]{4,20}))\.sqlite$/;

/** Lets copies go as the backups do. */
async function pruneCopies(copyTo: string, now: string): Promise<void> {
  const copies = (await readdir(copyTo)).flatMap((name) => {
    const [, , day, hour, minute, second, ms, reason] = COPY.exec(name) ?? [];
    if (!BACKUP_REASONS.includes(reason as BackupReason)) return [];
    return { name, at: `${day}T${hour}:${minute}:${second}.${ms}Z`, reason: reason as BackupReason };
  });
  for (const { name } of outgrown(copies, now)) await rm(join(copyTo, name), { force: true });
}

/** Copies a backup into the maker's other folder, if there is one; what goes wrong is told, and stops nothing. */
async function copyElsewhere(db: Knex, folder: string, { id, at }: Backup): Promise<void> {
  const { copyTo } = (await findSetting(db, 'backups')).value;
  copyFault = null;
  if (copyTo === '') return;
  const target = join(copyTo, `proportia-${id}.sqlite`);
  try {
    const file = backupFile(folder, id)!;
    await copyFile(file, `${target}.part`);
    await rename(`${target}.part`, target);
    await pruneCopies(copyTo, at);
  } catch (error) {
    copyFault = `The copy into ${copyTo} did not succeed: ${(error as Error).message}`;
    // What of it got there takes room, and is no backup.
    await rm(`${target}.part`, { force: true });
    noteFault('backup not copied', error);
  }
}

/**
 * Which backups go as they grow old: those by time and by hand by their age, those before something dangerous by reason.
 * What was made while the clock was ahead stays, and pushes nothing out.
 */
function outgrown<T extends { at: string; reason: BackupReason }>(all: readonly T[], now: string): T[] {
  const good = all.filter(({ at }) => !isAhead(at, now));
  const isTimed = ({ reason }: T) => reason === 'byTime' || reason === 'byHand';
  const timed = good.filter(isTimed);
  const kept = keptByAge(
    timed.map(({ at }) => at),
    now,
  );
  const newestFirst = [...good].sort((a, b) => b.at.localeCompare(a.at));
  const before = BACKUP_REASONS.flatMap((reason) =>
    newestFirst.filter((one) => one.reason === reason && !isTimed(one)).slice(MOST_BEFORE),
  );
  return [...timed.filter(({ at }) => !kept.has(at)), ...before];
}

/** Lets old ones go; `wanted` stays, however old it is. */
function prune(folder: string, now: string, wanted: string | null): void {
  const good = () => listBackups(folder).filter((one) => one.fault === null);
  for (const { id } of outgrown(good(), now)) if (id !== wanted) dropBackup(folder, id);
  for (const { id } of overRoom(good(), roomFor(folder, good()), now))
    if (id !== wanted) dropBackup(folder, id);
}

/** Of what the disk would have free without any backup, they take at most so much. */
const SHARE_OF_FREE = 0.5;

/** Bytes that backups may take where they lie. */
function roomFor(folder: string, backups: readonly Backup[]): number {
  const { bavail, bsize } = statfsSync(folder);
  return SHARE_OF_FREE * (bavail * bsize + backups.reduce((sum, { bytes }) => sum + bytes, 0));
}

let making: Promise<unknown> = Promise.resolve();
let waiting = 0;
/** Backups that may wait for the one being made. */
const MOST_WAITING = 3;

/** Makes a backup, looks it over, copies it and lets old ones go but for the one that is wanted; one after the other. */
export function makeBackup(db: Knex, reason: BackupReason, wanted: string | null = null): Promise<Backup> {
  if (waiting >= MOST_WAITING)
    return Promise.reject(fault(429, 'busy', 'A backup is being made just now. Ask again in a moment.'));
  waiting++;
  const make = async () => {
    const folder = backupFolder(dataFolder());
    const at = moment();
    const id = backupId(at, reason);
    const job = { file: join(dataFolder(), DATABASE_FILE), into: backupFile(folder, id)! };
    const made = await onThread('backUp', job, { limitMs: LIMIT_MS });
    const backup: Backup = { id, at, reason, ...made };
    noteBackup(folder, backup);
    if (backup.fault === null) await copyElsewhere(db, folder, backup);
    prune(folder, at, wanted);
    return backup;
  };
  const next = making.then(make).then(
    (backup) => {
      isFailing = false;
      return backup;
    },
    (error: unknown) => {
      isFailing = true;
      throw error;
    },
  );
  making = next.catch(() => undefined).finally(() => waiting--);
  return next;
}

function isFolder(path: string): boolean {
  try {
    return isAbsolute(path) && statSync(path).isDirectory();
  } catch {
    return false;
  }
}

/** 422 where copies are to go somewhere that is no folder: none is ever made outside the data folder. */
export function requireFolder(copyTo: string): void {
  if (copyTo !== '' && !isFolder(copyTo))
    throw fault(
      422,
      'no-folder',
      'Give the whole path of a folder that is there, or leave it empty.',
      'copyTo',
    );
}

/** The first backup is made within this time of the start. */
const FIRST_WITHIN_S = 600;

/** What is wrong with the backups, in words, days in the house's zone; null where nothing is. */
export async function backupTrouble(db: Knex, zone: string): Promise<string | null> {
  const { backups, lastGood, isOld } = await backupsData(db);
  if (isFailing) return 'The last backup could not be made. Is there room on the disk?';
  if (copyFault !== null) return copyFault;
  if (backups[0]?.fault) return 'The last backup does not hold together.';
  if (lastGood === null) return process.uptime() > FIRST_WITHIN_S ? 'No backup was made yet.' : null;
  return isOld ? `The last good backup is of ${dayOf(lastGood, zone)}.` : null;
}

/** What there is of backups. */
export async function backupsData(db: Knex): Promise<BackupsData> {
  const folder = backupFolder(dataFolder());
  const now = moment();
  const backups = listBackups(folder).map((one) => ({ ...one, isAhead: isAhead(one.at, now) }));
  const { value: settings, revision } = await findSetting(db, 'backups');
  const lastGood = backups.find((one) => one.fault === null && !one.isAhead)?.at ?? null;
  return { backups, settings, revision, lastGood, isOld: isBackupOld(lastGood, now), copyFault, folder };
}

function requireBackup(id: string): { backup: Backup; file: string } {
  const folder = backupFolder(dataFolder());
  const backup = listBackups(folder).find((one) => one.id === id);
  if (!backup) throw fault(404, 'unknown-backup', `There is no backup "${id}".`, 'id');
  return { backup, file: backupFile(folder, id)! };
}

/** The file of a backup, to take along, as a stream: it may be larger than memory. */
export function backupStream(id: string): { body: ReadableStream<Uint8Array>; bytes: number } {
  const { file } = requireBackup(id);
  const body = Readable.toWeb(createReadStream(file)) as ReadableStream<Uint8Array>;
  return { body, bytes: statSync(file).size };
}

let isRestoring = false;

/**
 * Puts a backup in the place of the database: got ready beside it first, then one more is made of what is there now. 422
 * where it does not hold together or cannot be brought up to this make, 429 while another is put in place. Answers the
 * backup made before.
 */
export async function restoreBackup(db: Knex, id: string): Promise<Backup> {
  const { backup } = requireBackup(id);
  if (isRestoring)
    throw fault(429, 'busy', 'Another backup is being put in place just now. Wait until it is done.');
  isRestoring = true;
  const folder = dataFolder();
  try {
    const got = await onThread('getReady', { folder, backup }, { limitMs: LIMIT_MS });
    if ('why' in got)
      throw fault(
        422,
        'damaged',
        `This backup cannot be put in place: ${got.why} Nothing was changed; choose another.`,
        'id',
      );
    const before = await makeBackup(db, 'beforeRestore', id);
    await replaceDatabase(() => putInPlace(folder, got.ready));
    return before;
  } finally {
    isRestoring = false;
    dropAside(folder);
  }
}

/** How often it is looked whether one is due. */
const LOOK_MS = 5 * 60_000;

/** Makes a backup where the last one is old enough; null where it is not. `known` is what the last one held. */
export async function backUpIfDue(db: Knex, known: { version: string | null }): Promise<Backup | null> {
  const { value } = await findSetting(db, 'backups');
  const now = moment();
  const isGood = ({ at, fault: why }: Backup) => why === null && !isAhead(at, now);
  const last = listBackups(backupFolder(dataFolder())).find(isGood)?.at;
  const ageMs = last ? Date.parse(now) - Date.parse(last) : Infinity;
  const version = await versionOf(db);
  // Once a day even where nothing changed, so that an old one always means that something is wrong.
  const isDue = version === known.version ? ageMs >= DAY_MS : ageMs >= value.everyHours * HOUR_MS;
  if (!isDue) return null;
  const made = await makeBackup(db, 'byTime');
  known.version = version;
  return made;
}

/** Looks every few minutes for as long as the process lives. */
export function keepBackingUp(open: () => Promise<Knex>): void {
  const known: { version: string | null } = { version: null };
  const look = () =>
    void open()
      .then((db) => backUpIfDue(db, known))
      .catch((error: unknown) => noteFault('backup', error));
  setInterval(look, LOOK_MS).unref();
  setTimeout(look, LOOK_MS / 10).unref();
}
