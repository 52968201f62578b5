/** What happened to a batch: taken in order, each once, refused with its reason, on file with its movements of stock. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { assess } from '../../core/assess';
import { refusalOf } from '../../core/batch/admit';
import { extendBatch, foldBatch } from '../../core/batch/fold';
import type { Batch, BatchEvent, EventOf, Refusal } from '../../core/batch/types';
import { spoken } from '../../core/spoken';
import type { EventsBody } from '../doors/batch';
import { drawStock } from '../events/draw';
import { tellBatch } from '../events/feed';
import type { House } from '../house';
import { fault } from '../http';
import { addEvent, eventBatches, eventsOf, findBatch } from '../repositories/batches';
import { writing } from './writing';
import { settledNow } from './cures';
import { keepBatch, latest, unknownBatch } from './batches';
import { batchRequest } from '../../core/batch/request';
import { madeOn, placedDays } from '../../core/curing/batch-cure';
import type { AssessmentRequest } from '../../core/formula/types';
import type { Product } from '../../core/records/product';
import { snapshotOf, type StoreSnapshot } from './snapshot';
import { requireProduct } from './products';

/** What may bring a poured batch over a limit, or show that it is. */
const WEIGHS: readonly BatchEvent['type'][] = ['poured', 'corrected', 'weighed', 'guessed', 'added'];

/** A batch over a binding limit is quarantined by the application itself; null where it is not. */
async function ownQuarantine(
  house: House,
  batch: Batch,
  fresh: readonly BatchEvent[],
): Promise<EventOf<'quarantined'> | null> {
  const asks = batch.poured !== null && fresh.some(({ type }) => WEIGHS.includes(type));
  if (!asks || batch.isQuarantined || batch.state === 'discarded' || batch.state === 'stopped') return null;
  const { snapshot, request } = await frozenRequest(house, batch);
  const result = assess(request, snapshot);
  if (!result.ok || result.assessment.verdict !== 'over') return null;
  const over = result.assessment.limits.filter(
    ({ verdict, force }) => verdict === 'over' && force !== 'craft',
  );
  const [worst] = [...over].sort((a, b) => b.nominalPct / b.maxPct - a.nominalPct / a.maxPct);
  const what = worst
    ? `${snapshot.material(worst.subject.id)?.name ?? spoken(worst.subject.id)} ${Number(worst.nominalPct.toFixed(3))} % of a most of ${worst.maxPct} % (${worst.market}${worst.source ? `; ${worst.source}` : ''})`
    : 'a binding limit';
  const reason = `As weighed, it is over: ${what}.`;
  return {
    id: randomUUID(),
    type: 'quarantined',
    at: house.now,
    by: null,
    reason,
  };
}

export type Added =
  | { seq: number; batch: Batch; added: string[]; known: string[] }
  | { stale: { seq: number; events: BatchEvent[] } };

function refuse(at: number, { path, code, message }: { path: string; code: string; message: string }): never {
  throw fault(422, code, message, `events.${at}.${path}`);
}

/** Splits what came into what is new and what is known; an id of another batch is refused. */
async function sorted(trx: Knex, id: string, events: readonly BatchEvent[]) {
  const owners = await eventBatches(
    trx,
    events.map((event) => event.id),
  );
  const known: string[] = [];
  const fresh: { at: number; event: BatchEvent }[] = [];
  const seen = new Set<string>();
  for (const [at, event] of events.entries()) {
    const owner = owners.get(event.id);
    if (owner !== undefined && owner !== id)
      refuse(at, {
        path: 'id',
        code: 'id-taken',
        message: 'This id belongs to an event of another batch. Take a new one.',
      });
    if (owner !== undefined || seen.has(event.id)) known.push(event.id);
    else fresh.push({ at, event });
    seen.add(event.id);
  }
  return { known: [...new Set(known)], fresh };
}

/**
 * What the cure says against a release: a net weight above the lightest settled bar, or a weighing that is in doubt. Null
 * where nothing does, or the event says why it is done all the same.
 */
async function releaseRefusal(trx: Knex, batch: Batch, event: BatchEvent): Promise<Refusal | null> {
  if (event.type !== 'released' || event.despite) return null;
  const { cure, lightestG } = await settledNow(trx, batch);
  const way = 'or say why it is released all the same';
  if (cure.doubts.length > 0)
    return {
      path: 'despite',
      code: 'doubt-open',
      message: `${cure.doubts[0]!.message} Decide on it, ${way}.`,
    };
  if (lightestG === null || event.netMassG <= lightestG + WEIGHED_ALIKE_G) return null;
  const [net, lightest] = [event.netMassG, lightestG].map((massG) => `${Number(massG.toFixed(1))} g`);
  return {
    path: 'netMassG',
    code: 'net-too-high',
    message: `The lightest settled bar weighs ${lightest}; ${net} is more than that. Declare less, ${way}.`,
  };
}

/** Masses that arithmetic alone parts, grams. */
const WEIGHED_ALIKE_G = 1e-6;

/**
 * Writes events of a batch down, all or none. One whose id is known changes nothing. Where `after` lies behind, what
 * came since is answered instead.
 */
export async function addEvents(house: House, id: string, { after, events }: EventsBody): Promise<Added> {
  const done = await writing(house.db, async (trx): Promise<Added> => {
    const summary = await findBatch(trx, id);
    if (!summary) throw unknownBatch(id);
    const stored = await eventsOf(trx, id);
    const { known, fresh } = await sorted(trx, id, events);
    if (after !== null && after > summary.seq)
      throw fault(422, 'ahead', `This batch has ${summary.seq} events, not ${after}.`, 'after');
    if (after !== null && after < summary.seq && fresh.length > 0)
      return { stale: { seq: summary.seq, events: stored.slice(after).map(({ event }) => event) } };
    const all = stored.map(({ event }) => event);
    const batch = foldBatch(all, latest(all, house.now))!;
    for (const { at, event } of fresh) {
      const refused =
        refusalOf(batch, event) ??
        (await releaseRefusal(trx, batch, event)) ??
        (await drawStock(trx, id, batch, event, house.zone));
      if (refused) refuse(at, refused);
      all.push(event);
      extendBatch(batch, event, latest(all, house.now));
      await addEvent(trx, id, { seq: all.length, event }, house.now);
    }
    const own = await ownQuarantine(
      { ...house, db: trx },
      batch,
      fresh.map(({ event }) => event),
    );
    if (own) {
      all.push(own);
      await addEvent(trx, id, { seq: all.length, event: own }, house.now);
      extendBatch(batch, own);
    }
    if (fresh.length > 0)
      await keepBatch(trx, { id, seq: all.length, productName: summary.productName }, batch, house.zone);
    return { seq: all.length, batch, added: fresh.map(({ event }) => event.id), known };
  });
  if (!('stale' in done) && done.added.length > 0) tellBatch({ batch: id, seq: done.seq });
  return done;
}

/** What was weighed as a request, in the markets of its bar. */
export function requestOf(
  batch: Batch,
  product: Product,
  snapshot: StoreSnapshot,
  { zone, materials }: { zone: string; materials: 'frozen' | 'stored' },
): AssessmentRequest {
  return batchRequest(batch, snapshot, {
    markets: product.markets,
    onDate: snapshot.onDate,
    firstPlacedOn: product.firstPlacedOn,
    placedOn: placedDays(batch, zone),
    materials,
  });
}

export async function frozenRequest({ db, zone }: Pick<House, 'db' | 'zone'>, batch: Batch) {
  const { product } = await requireProduct(db, batch.product);
  // It answers for the rules of its own day.
  const snapshot = await snapshotOf(db, madeOn(batch, zone));
  return { product, snapshot, request: requestOf(batch, product, snapshot, { zone, materials: 'frozen' }) };
}
