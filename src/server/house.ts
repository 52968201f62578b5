/** What services work with: the store, and the day and moment they take for now. The clock is read here alone. */
import type { Knex } from 'knex';
import { moment, today } from './config';
import { database, onceOpened } from './database';
import { keepBackingUp } from './services/backups';

onceOpened(keepBackingUp);

export interface House {
  db: Knex;
  /** YYYY-MM-DD. */
  today: string;
  /** ISO 8601. */
  now: string;
}

/** The application's house at this moment. */
export async function openHouse(): Promise<House> {
  return { db: await database(), today: today(), now: moment() };
}
