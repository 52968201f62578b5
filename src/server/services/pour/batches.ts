/** Batches: begun, written down event by event, and held against the limits as they were weighed. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { assess } from '../../../core/assess';
import { foldBatch } from '../../../core/batch/fold';
import { batchLetters } from '../../../core/batch/code';
import type { BatchEvent, EventOf } from '../../../core/batch/types';
import type { TraitMaterial } from '../../../core/formula/traits';
import { runSheet } from '../../../core/making/run-sheet';
import type { RunSheet } from '../../../core/making/run-sheet-types';
import type { BatchAssessment, BatchDetail } from '../../../core/records/batch';
import type { Product } from '../../../core/records/product';
import type { NewBatch } from '../../doors/batch';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { addEvent, takenCodes } from '../../repositories/batches';
import { findSetting } from '../../repositories/settings';
import { materialsOf, snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { once, takenIds, writing } from '../../store/writing';
import { freeId } from '../../store/ids';
import { requireProduct } from '../../store/products';
import { addNewBatch, requireBatch } from '../../store/batches';
import { requestOf, frozenRequest } from '../../store/batch-events';

/** A code that no batch has: the bar's letters and the day, and a letter where there are several. */
async function freeCode(trx: Knex, name: string, today: string): Promise<string> {
  const base = `${batchLetters(name)}-${today.slice(2).replaceAll('-', '')}`;
  const taken = await takenCodes(trx, base);
  for (let count = 0; ; count++) {
    const code = count === 0 ? base : `${base}-${count + 1}`;
    if (!taken.has(code)) return code;
  }
}

/** A mix of fats by its id. */
function bucketOf(id: string | null, snapshot: StoreSnapshot): TraitMaterial | null {
  const known = id === null ? null : snapshot.material(id);
  if (id === null || known) return known ?? null;
  throw fault(422, 'unknown-material', `There is no material "${id}" in the cupboard.`, 'bucket');
}

/** The run sheet of a bar at a size, under the rules of a day. 404 and 422 as faults. */
export async function planSheet(
  { db, today }: House,
  { product: id, size = {}, lyeStock, bucket, readabilityG }: Omit<NewBatch, 'by'>,
): Promise<{ product: Product; version: number; snapshot: StoreSnapshot; sheet: RunSheet }> {
  const { product, version } = await requireProduct(db, id);
  const snapshot = await snapshotOf(db, today);
  const { value: mouldsOnFile } = await findSetting(db, 'moulds');
  const made = runSheet(version.formula, materialsOf(version.formula, snapshot), {
    ...size,
    mouldsOnFile,
    lyeStock: lyeStock ?? null,
    bucket: bucketOf(bucket ?? null, snapshot),
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
