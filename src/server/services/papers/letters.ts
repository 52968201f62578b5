/**
 * The folder that is looked into for papers: what somebody, a mail program or a scanner puts there waits in the tray.
 * Files stay where they are and are never opened to run; each content is taken once.
 */
import { PAPER_TYPES } from '../../../core/records/papers';
import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, stat } from 'node:fs/promises';
import { extname, join } from 'node:path';
import type { Knex } from 'knex';
import { LARGEST_PAPER_BYTES, type Inbox, type LeftOut } from '../../../core/records/papers';
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

/** Files whose content is known to stand in an inbox, by database, path, size and time. */
const seen = new WeakMap<Knex, Set<string>>();

/** A name to show: without control characters and direction marks. */
const shownName = (name: string) =>
  name.replace(/[\p{Cc}\p{Cf}]/gu, '').slice(0, LONGEST_NAME) || 'A paper without a name';

const whyLeftOut = (name: string, bytes: number): string | null => {
  if (!(extname(name).toLowerCase() in PAPER_TYPES))
    return 'This kind of file is not read. PDF, text, CSV, pictures, .docx and .xlsx are.';
  if (bytes > LARGEST_PAPER_BYTES) return 'It is over 15 MB. Put in a smaller one.';
  return bytes === 0 ? 'It is empty.' : null;
};

/** Takes one file in, unless its content is there already. */
async function takeIn({ db, today }: House, path: string, name: string): Promise<void> {
  const bytes = await readFile(path);
  const id = `letter-${createHash('sha256').update(bytes).digest('hex').slice(0, 24)}`;
  const mime = PAPER_TYPES[extname(name).toLowerCase()]!;
  await writing(db, async (trx) => {
    if (await isInInbox(trx, id)) return;
    await addToInbox(trx, { id, fileName: shownName(name), mime, receivedOn: today, filedOn: null }, bytes);
  });
}

async function look(house: House, folder: string): Promise<LeftOut[]> {
  const known = seen.get(house.db) ?? new Set<string>();
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
      if (why || known.has(mark) || isBeingWritten(mtimeMs) || taken >= MOST_FILES) continue;
      taken++;
      await takeIn(house, path, name);
      known.add(mark);
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
