/** Batches: begun, written down event by event, and held against the limits as they were weighed. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { assess } from '../../../core/assess';
import { refusalOf } from '../../../core/batch/admit';
import { extendBatch, foldBatch } from '../../../core/batch/fold';
import { batchLetters } from '../../../core/batch/code';
import { batchRequest } from '../../../core/batch/request';
import type { Batch, BatchEvent, EventOf, Refusal } from '../../../core/batch/types';
import { madeOn, placedDays } from '../../../core/curing/batch-cure';
import type { AssessmentRequest } from '../../../core/formula/types';
import { runSheet } from '../../../core/making/run-sheet';
import type { RunSheet } from '../../../core/making/run-sheet-types';
import type { BatchAssessment, BatchDetail } from '../../../core/records/batch';
import type { Product } from '../../../core/records/product';
import { spoken } from '../../../core/spoken';
import type { EventsBody, NewBatch } from '../../doors/batch';
import { drawStock } from '../../events/draw';
import { tellBatch } from '../../events/feed';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { addEvent, eventBatches, eventsOf, findBatch, takenCodes } from '../../repositories/batches';
import { findSetting } from '../../repositories/settings';
import { materialsOf, snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { once, takenIds, writing } from '../../store/writing';
import { settledNow } from '../../store/cures';
import { freeId } from '../../store/ids';
import { requireProduct } from '../../store/products';
import { addNewBatch, keepBatch, latest, requireBatch, unknownBatch } from '../../store/batches';

/** A code that no batch has: the bar's letters and the day, and a letter where there are several. */
async function freeCode(trx: Knex, name: string, today: string): Promise<string> {
  const base = `${batchLetters(name)}-${today.slice(2).replaceAll('-', '')}`;
  const taken = await takenCodes(trx, base);
  for (let count = 0; ; count++) {
    const code = count === 0 ? base : `${base}-${count + 1}`;
    if (!taken.has(code)) return code;
  }
}

/** The run sheet of a bar at a size, under the rules of a day. 404 and 422 as faults. */
export async function planSheet(
  { db, today }: House,
  { product: id, size = {}, lyeStock, readabilityG }: Omit<NewBatch, 'by'>,
): Promise<{ product: Product; version: number; snapshot: StoreSnapshot; sheet: RunSheet }> {
  const { product, version } = await requireProduct(db, id);
  const snapshot = await snapshotOf(db, today);
  const { value: mouldsOnFile } = await findSetting(db, 'moulds');
  const made = runSheet(version.formula, materialsOf(version.formula, snapshot), {
    ...size,
    mouldsOnFile,
    lyeStock: lyeStock ?? null,
    readabilityG,
    weights: (await findSetting(db, 'house')).value.weights,
    limits: snapshot.limits,
    markets: product.markets,
    onDate: today,
  });
  if (!made.ok) {
    const within = (path: string) => (/^(fatsMassG|bars|moulds)/.test(path) ? `size.${path}` : path);
    throw new HttpFault(
      422,
      made.errors.map((error) => ({ ...error, path: within(error.path) })),
    );
  }
  const { ok: _ok, ...sheet } = made;
  return { product, version: version.number, snapshot, sheet };
}

/** The written reason for pouring what is over a limit or unproven, as the record keeps it. */
const despiteNote = ({ now }: House, { by, despite }: NewBatch): EventOf<'noted'>[] =>
  despite === undefined
    ? []
    : [
        {
          id: randomUUID(),
          type: 'noted',
          at: now,
          by,
          text: `Poured all the same: ${despite}`,
          for: 'record',
        },
      ];

/** Begins a batch: what is planned is frozen in its first event. `key` makes a request sent twice begin one batch. */
export function beginBatch(house: House, wanted: NewBatch, key: string | null = null): Promise<BatchDetail> {
  return writing(house.db, (trx) =>
    once(trx, key, 'batch', house.now, async () => {
      const { product, version, snapshot, sheet } = await planSheet({ ...house, db: trx }, wanted);
      const code = await freeCode(trx, product.name, house.today);
      const id = await freeId(code, 'batch', (base) => takenIds(trx, 'batches', base));
      const started: EventOf<'started'> = {
        id: randomUUID(),
        type: 'started',
        at: house.now,
        by: wanted.by,
        product: product.id,
        version,
        formula: sheet.formula,
        materials: materialsOf(sheet.formula, snapshot),
        sheet,
        code,
      };
      const events: BatchEvent[] = [started, ...despiteNote(house, wanted)];
      const [batch, seq] = [foldBatch(events)!, events.length];
      await addNewBatch(trx, { id, seq, productName: product.name }, batch);
      for (const [at, event] of events.entries()) await addEvent(trx, id, { seq: at + 1, event }, house.now);
      return { id, code, seq, batch, events, sheet };
    }),
  );
}

/** What was weighed as a request, in the markets of its bar. */
function requestOf(
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

async function frozenRequest({ db, zone }: Pick<House, 'db' | 'zone'>, batch: Batch) {
  const { product } = await requireProduct(db, batch.product);
  // It answers for the rules of its own day.
  const snapshot = await snapshotOf(db, madeOn(batch, zone));
  return { product, snapshot, request: requestOf(batch, product, snapshot, { zone, materials: 'frozen' }) };
}

/** What was weighed, assessed; 422 where it does not reckon (yet). */
export async function assessBatch(house: House, id: string): Promise<BatchAssessment> {
  const { batch } = await requireBatch(house, id);
  const { product, snapshot, request } = await frozenRequest(house, batch);
  const result = assess(request, snapshot);
  if (!result.ok) throw new HttpFault(422, result.errors);
  const now = await snapshotOf(house.db, house.today);
  const again = requestOf(batch, product, now, { zone: house.zone, materials: 'stored' });
  const todays = assess(again, now);
  if (!todays.ok) throw new HttpFault(422, todays.errors);
  return {
    onDate: snapshot.onDate,
    request,
    assessment: result.assessment,
    today: { onDate: house.today, request: again, assessment: todays.assessment },
  };
}

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
