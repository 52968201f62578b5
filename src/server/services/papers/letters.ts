/**
 * The folder that is looked into for papers: what somebody, a mail program or a scanner puts there waits in the tray.
 * Files stay where they are and are never opened to run; each content is taken once.
 */
import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, stat } from 'node:fs/promises';
import { extname, join } from 'node:path';
import type { Knex } from 'knex';
import PostalMime from 'postal-mime';
import { mailOf, type Mailed } from '../../../core/paperwork/mail';
import { remedyFor } from '../../../core/file-kinds';
import { LARGEST_PAPER_BYTES, typeOfPaper, type Inbox, type LeftOut } from '../../../core/records/papers';
import { lettersFolder } from '../../config';
import type { House } from '../../house';
import { addToInbox, inboxEntries, isInInbox } from '../../repositories/inbox';
import { writing } from '../../store/writing';

/** A file that was written to within this time may not be whole yet, milliseconds. */
const SETTLED_MS = 2000;
/** A file of a moment to come is of a clock that was ahead, and is not being written now. */
const isBeingWritten = (mtimeMs: number): boolean => Math.abs(Date.now() - mtimeMs) < SETTLED_MS;
/** Files looked at in one look, the rest at the next. */
const MOST_FILES = 200;
const LONGEST_NAME = 200;

/** Files whose content is known to stand in an inbox, by database, path, size and time, with what was left out of each. */
const seen = new WeakMap<Knex, Map<string, LeftOut[]>>();

/** A name to show: without control characters and direction marks. */
const shownName = (name: string) =>
  name.replace(/[\p{Cc}\p{Cf}]/gu, '').slice(0, LONGEST_NAME) || 'A paper without a name';

const notRead = (name: string) =>
  remedyFor(name) ??
  'This kind of file is not read. PDF, text, CSV, pictures, pages, documents and spreadsheets are.';
const isMail = (name: string) => extname(name).toLowerCase() === '.eml';

const whyLeftOut = (name: string, bytes: number): string | null => {
  if (typeOfPaper(name) === null && !isMail(name)) return notRead(name);
  if (bytes > LARGEST_PAPER_BYTES) return 'It is over 15 MB. Put in a smaller one.';
  return bytes === 0 ? 'It is empty.' : null;
};

/** Takes a paper in, unless its content is there already. */
async function takeIn({ db, today }: House, { fileName, mime, bytes }: Mailed): Promise<void> {
  const id = `letter-${createHash('sha256').update(bytes).digest('hex').slice(0, 24)}`;
  await writing(db, async (trx) => {
    if (await isInInbox(trx, id)) return;
    await addToInbox(
      trx,
      { id, fileName: shownName(fileName), mime, receivedOn: today, filedOn: null },
      bytes,
    );
  });
}

/** Takes every paper of a mail in; what it leaves out of it, and why. */
async function takeMail(house: House, name: string, bytes: Uint8Array): Promise<LeftOut[]> {
  const { papers, others } = mailOf(await PostalMime.parse(bytes), name);
  for (const paper of papers) await takeIn(house, paper);
  if (papers.length === 0 && others.length === 0)
    return [{ fileName: shownName(name), why: 'There is no paper in this mail, and no words.' }];
  return others.map((other) => ({ fileName: shownName(`${name}: ${other}`), why: notRead(other) }));
}

/** Takes one file in; what of it was left out. */
async function takeFile(house: House, path: string, name: string): Promise<LeftOut[]> {
  const bytes = await readFile(path);
  if (isMail(name)) return takeMail(house, name, bytes);
  await takeIn(house, { fileName: name, mime: typeOfPaper(name)!, bytes });
  return [];
}

async function look(house: House, folder: string): Promise<LeftOut[]> {
  const known = seen.get(house.db) ?? new Map<string, LeftOut[]>();
  seen.set(house.db, known);
  const leftOut: LeftOut[] = [];
  const entries = await readdir(folder, { withFileTypes: true });
  let taken = 0;
  for (const { name } of entries.filter((entry) => entry.isFile() && !entry.name.startsWith('.'))) {
    const path = join(folder, name);
    try {
      const { size, mtimeMs } = await stat(path);
      const mark = `${path}\n${size}\n${mtimeMs}`;
      const why = whyLeftOut(name, size);
      if (why) leftOut.push({ fileName: shownName(name), why });
      leftOut.push(...(known.get(mark) ?? []));
      if (why || known.has(mark) || isBeingWritten(mtimeMs) || taken >= MOST_FILES) continue;
      taken++;
      const left = await takeFile(house, path, name);
      leftOut.push(...left);
      known.set(mark, left);
    } catch {
      leftOut.push({ fileName: shownName(name), why: 'It cannot be read. Look at who may read it.' });
    }
  }
  return leftOut;
}

/** Every paper that came, newest first, after a look into the folder; what was left out of it, and why. Never throws. */
export async function inboxNow(house: House): Promise<Inbox> {
  const folder = lettersFolder();
  let leftOut: LeftOut[];
  try {
    await mkdir(folder, { recursive: true });
    leftOut = await look(house, folder);
  } catch {
    leftOut = [{ fileName: folder, why: 'This folder cannot be looked into.' }];
  }
  return { papers: await inboxEntries(house.db), folder, leftOut };
}
