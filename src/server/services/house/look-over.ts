/** Looking over the whole database: at once while it is small, in the background once that takes longer than a page may. */
import { statSync } from 'node:fs';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { dataFolder, moment } from '../../config';
import { DATABASE_FILE, isLarge, refuseDatabase } from '../../database';
import { JobEnded } from '../../jobs/ended';
import { onThread } from '../../jobs/threads';
import { noteFault } from '../../log';
import { lookAtSome } from '../../store/batches';
import { writing } from '../../store/writing';

const LIMIT_MS = 10 * 60_000;
/** After so long a large database is looked over again where somebody asks. */
const AGAIN_MS = 30 * 60_000;

export interface Look {
  fault: string | null;
  /** The moment it was looked over; null where that still goes on. */
  lookedAt: string | null;
}

/** What is wrong with a database; a look that takes too long is said to, and is no fault. */
async function look(file: string): Promise<Look> {
  const lookedAt = moment();
  try {
    return { fault: await onThread('faultOf', file, { limitMs: LIMIT_MS }), lookedAt };
  } catch (error) {
    if (!(error instanceof JobEnded)) throw error;
    return { fault: 'It could not be looked over in time. Look again when less goes on.', lookedAt };
  }
}

const last = new Map<string, Look>();
const running = new Map<string, Promise<Look>>();

function lookAside(file: string): Promise<Look> {
  const known = running.get(file);
  if (known) return known;
  const run = look(file)
    .then((found) => {
      last.set(file, found);
      return found;
    })
    .finally(() => running.delete(file));
  running.set(file, run);
  return run;
}

/** How the database was found: just now where it is small, else the last time, and again in the background where that is long ago. */
export async function lookedOver(): Promise<Look> {
  const file = join(dataFolder(), DATABASE_FILE);
  if (!isLarge(statSync(file).size)) return look(file);
  const known = last.get(file) ?? { fault: null, lookedAt: null };
  const isOld = known.lookedAt === null || Date.parse(moment()) - Date.parse(known.lookedAt) > AGAIN_MS;
  if (isOld) void lookAside(file).catch((error: unknown) => noteFault('look over', error));
  return known;
}

/** Looks over a database that was too large for it at the start; one that does not hold together is not worked with any more. */
export async function lookOverWhole(file: string): Promise<void> {
  const { fault } = await lookAside(file);
  if (fault !== null) refuseDatabase(fault);
}

const DAY_MS = 24 * 3_600_000;

/** Once a day, holds some of what is kept beside events against a full fold; what differs is made anew and told in the log. */
async function lookAtRows(open: () => Promise<Knex>): Promise<void> {
  const look = Math.floor(Date.parse(moment()) / DAY_MS);
  const differing = await writing(await open(), (trx) => lookAtSome(trx, look));
  if (differing.length > 0) noteFault('rows beside events', new Error(`differed: ${differing.join(', ')}`));
}

/** Once a large database is opened, looks it over in the background; what is kept beside events, once a day. */
export function lookOverOnceOpened(open: () => Promise<Knex>): void {
  const rows = () => void lookAtRows(open).catch((error: unknown) => noteFault('look over', error));
  setInterval(rows, DAY_MS).unref();
  void open()
    .then(async () => {
      const file = join(dataFolder(), DATABASE_FILE);
      if (isLarge(statSync(file).size)) await lookOverWhole(file);
    })
    .catch((error: unknown) => noteFault('look over', error));
}
