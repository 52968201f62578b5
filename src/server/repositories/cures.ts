/** What was reckoned of batches' cures, kept until the batch has a newer event. */
import type { Knex } from 'knex';
import type { Cure } from '../../core/curing/cure-types';

/** A cure as it is kept: at which event, and with which least days, it was reckoned. */
export interface KeptCure {
  seq: number;
  minDays: number;
  cure: Cure;
}

interface CureRow {
  batch_id: string;
  seq: number;
  body: string;
}

/** The cures kept of some batches, with the place of the event each was reckoned at. */
export async function keptCures(
  db: Knex,
  batches: readonly string[],
): Promise<ReadonlyMap<string, KeptCure>> {
  const rows: CureRow[] = await db('batch_cures').whereIn('batch_id', [...batches]);
  return new Map(
    rows.map(({ batch_id, seq, body }) => [
      batch_id,
      { ...(JSON.parse(body) as Pick<KeptCure, 'minDays' | 'cure'>), seq },
    ]),
  );
}

/** Forgets all cures: they were reckoned with other days. */
export async function dropCures(trx: Knex): Promise<void> {
  await trx('batch_cures').delete();
}

/** Keeps a cure. */
export async function keepCure(db: Knex, batch: string, { seq, minDays, cure }: KeptCure): Promise<void> {
  await db('batch_cures')
    .insert({ batch_id: batch, seq, body: JSON.stringify({ minDays, cure }) })
    .onConflict('batch_id')
    .merge();
}
