/** Writing: one transaction a user action, begun as a write, and done once however often it is sent. */
import type { Knex } from 'knex';
import { subDays } from 'date-fns';
import { fault } from '../http';

/**
 * Runs one user action in one transaction. Its first statement writes, so that it waits for whoever writes just
 * now and then sees what they left; nothing read in it can grow stale before it is done. Within another action
 * it is part of that.
 */
export function writing<T>(db: Knex, action: (trx: Knex) => Promise<T>): Promise<T> {
  if (db.isTransaction) return action(db);
  return db.transaction(async (trx) => {
    await trx('store').update({ version: trx.raw('version + 1') });
    return action(trx);
  });
}

/** Days for which an answer given is remembered. */
const REMEMBERED_DAYS = 7;

/**
 * Does what a request asks once: where a request of that id was answered before, the same answer comes again.
 * `id` is the client's; without one nothing is remembered. Has to run within `writing`.
 */
export async function once<T>(
  trx: Knex,
  id: string | null,
  kind: string,
  now: string,
  work: () => Promise<T>,
): Promise<T> {
  if (id === null) return work();
  const known: { kind: string; body: string } | undefined = await trx('answered').where('id', id).first();
  if (known && known.kind !== kind) {
    throw fault(409, 'key-used', 'This Idempotency-Key was used for something else. Take a new one.');
  }
  if (known) return JSON.parse(known.body) as T;
  const done = await work();
  await trx('answered').insert({ id, kind, at: now, body: JSON.stringify(done) });
  await trx('answered')
    .where('at', '<', subDays(new Date(now), REMEMBERED_DAYS).toISOString())
    .delete();
  return done;
}

/** Ids that begin so, of a table; the base holds letters, digits and dashes only. */
export async function takenIds(trx: Knex, table: string, base: string): Promise<ReadonlySet<string>> {
  const rows: { id: string }[] = await trx(table)
    .select('id')
    .where('id', base)
    .orWhere('id', 'like', `${base}-%`);
  return new Set(rows.map(({ id }) => id));
}
