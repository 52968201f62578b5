/** Holding a doubted lot: the lot, every batch that holds it and their sales go together, and are freed together. */
import { randomUUID } from 'node:crypto';
import { heldFor } from '../../core/batch/held';
import type { BatchEvent } from '../../core/batch/types';
import type { HeldBatch, Holding } from '../../core/records/holding';
import type { Lot } from '../../core/making/cost';
import type { House } from '../house';
import { fault } from '../http';
import { findLot, lotsMadeOf, putLot } from '../repositories/lots';
import { writing } from './writing';
import { requireBatch } from './batches';
import { snapshotOf } from './snapshot';
import { addEvents } from './batch-events';
import { traceLot } from './trace';

/** Batches that are past holding: nothing of them is here to be sold. */
const PAST: readonly string[] = ['stopped', 'discarded', 'soldOut'];

async function requireLot({ db }: House, id: string): Promise<Lot> {
  const lot = await findLot(db, id);
  if (!lot) throw fault(404, 'unknown-lot', `There is no lot "${id}".`, 'lot');
  return lot;
}

async function nameOf({ db, today }: House, { material }: Lot): Promise<string> {
  return (await snapshotOf(db, today)).material(material)?.name ?? material;
}

/** The lots that were made of a lot, and of those. */
async function madeOf({ db }: House, id: string): Promise<Lot[]> {
  const made = new Map<string, Lot>();
  for (const open = [id]; open.length > 0;) {
    for (const next of await lotsMadeOf(db, open.pop()!)) {
      const lot = made.has(next) ? null : await findLot(db, next);
      if (!lot) continue;
      made.set(next, lot);
      open.push(next);
    }
  }
  return [...made.values()];
}

/** What a hold on a lot takes with it, as it stands now. 404 where there is no such lot. */
export async function holdingOf(house: House, id: string): Promise<Holding> {
  const lot = await requireLot(house, id);
  const { batches } = await traceLot(house, id);
  const held: HeldBatch[] = batches.map(
    ({ id: batch, code, productName, state, isQuarantined, bars, gone, labels }) => ({
      id: batch,
      code,
      productName,
      isHeld: isQuarantined,
      isPast: PAST.includes(state),
      left: bars.left,
      out: gone
        .filter(({ how }) => how === 'sale' || how === 'sample')
        .reduce((sum, one) => sum + one.bars, 0),
      labels: labels.length,
    }),
  );
  const made = await madeOf(house, id);
  return {
    made: made.map(({ id: own, code, quarantine }) => ({ id: own, code, isHeld: quarantine !== null })),
    lot: { id, code: lot.code, name: await nameOf(house, lot), quarantine: lot.quarantine },
    batches: held,
  };
}

function write(house: House, batch: string, event: BatchEvent): Promise<unknown> {
  return addEvents(house, batch, { after: null, events: [event] });
}

const stamp = ({ now }: House, by: string | null) => ({ id: randomUUID(), at: now, by });

/**
 * Holds a lot back with every batch it went into, in one step; a lot that is held already keeps its reason, and takes the
 * batches along that were not held yet. 404 where there is no such lot.
 */
export function holdLot(
  house: House,
  id: string,
  reason: string,
  by: string | null = null,
): Promise<Holding> {
  return writing(house.db, async (trx) => {
    const inside = { ...house, db: trx };
    const lot = await requireLot(inside, id);
    const why = lot.quarantine ?? reason;
    if (lot.quarantine === null) await putLot(trx, { ...lot, quarantine: why, revision: lot.revision + 1 });
    const words = heldFor(lot.code, await nameOf(inside, lot), why);
    for (const made of await madeOf(inside, id))
      if (made.quarantine === null)
        await putLot(trx, { ...made, quarantine: words, revision: made.revision + 1 });
    const { batches } = await holdingOf(inside, id);
    for (const batch of batches) {
      if (batch.isPast) continue;
      const { batch: folded } = await requireBatch(inside, batch.id);
      const isKnown = folded.quarantines.some((one) => one.decision === null && one.reason === words);
      if (!isKnown)
        await write(inside, batch.id, { ...stamp(house, by), type: 'quarantined', reason: words });
    }
    return holdingOf(inside, id);
  });
}

/**
 * Frees a lot with why, and with it the batches that were held for it alone; one that is held for something else besides
 * stays held. 404 where there is no such lot, 422 where it is not held.
 */
export function freeLot(
  house: House,
  id: string,
  reason: string,
  by: string | null = null,
): Promise<Holding> {
  return writing(house.db, async (trx) => {
    const inside = { ...house, db: trx };
    const lot = await requireLot(inside, id);
    if (lot.quarantine === null) throw fault(422, 'not-held', `Lot ${lot.code} is not held.`, 'lot');
    const words = heldFor(lot.code, await nameOf(inside, lot), lot.quarantine);
    await putLot(trx, { ...lot, quarantine: null, revision: lot.revision + 1 });
    for (const made of await madeOf(inside, id))
      if (made.quarantine === words)
        await putLot(trx, { ...made, quarantine: null, revision: made.revision + 1 });
    for (const { id: batch, isHeld } of (await holdingOf(inside, id)).batches) {
      if (!isHeld) continue;
      const open = (await requireBatch(inside, batch)).batch.quarantines.filter(
        (one) => one.decision === null,
      );
      if (!open.every((one) => one.reason === words)) continue;
      await write(inside, batch, { ...stamp(house, by), type: 'decided', decision: 'release', reason });
    }
    return holdingOf(inside, id);
  });
}
