/** What services work with: the store, and the day and moment they take for now. The clock is read here alone. */
import type { Knex } from 'knex';
import { moment, today, usualZone } from './config';
import { lookOverOnceOpened } from './services/house/look-over';
import { database, onceOpened } from './database';
import { findSetting } from './repositories/settings';
import { noteFault } from './log';
import { keepBackingUp } from './services/house/backups';
import { lookBackAtPace } from './services/rack/sure';

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

onceOpened((open) => {
  keepBackingUp(open);
  lookOverOnceOpened(open);
  const back = () =>
    void openHouse()
      .then(lookBackAtPace)
      .catch((error: unknown) => noteFault('pace looked back at', error));
  setTimeout(back, MINUTE_MS).unref();
  setInterval(back, DAY_MS).unref();
});

export interface House {
  db: Knex;
  /** YYYY-MM-DD. */
  today: string;
  /** ISO 8601, in UTC. */
  now: string;
  /** The zone whose days these are: as it was set, else the machine's. */
  zone: string;
}

/** The application's house at this moment. */
export async function openHouse(): Promise<House> {
  const db = await database();
  const { zone = usualZone() } = (await findSetting(db, 'house')).value;
  return { db, today: today(zone), now: moment(zone), zone };
}
