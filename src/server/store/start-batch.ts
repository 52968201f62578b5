/** Beginning a batch: its run sheet under the rules of a day, and its first event, in which the plan is frozen. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { foldBatch } from '../../core/batch/fold';
import { batchLetters } from '../../core/batch/code';
import type { BatchEvent, EventOf } from '../../core/batch/types';
import type { TraitMaterial } from '../../core/formula/traits';
import { runSheet } from '../../core/making/run-sheet';
import type { RunSheet } from '../../core/making/run-sheet-types';
import type { BatchDetail } from '../../core/records/batch';
import type { Product } from '../../core/records/product';
import type { NewBatch } from '../doors/batch';
import type { House } from '../house';
import { fault, HttpFault } from '../http';
import { addEvent, takenCodes } from '../repositories/batches';
import { findSetting } from '../repositories/settings';
import { addNewBatch } from './batches';
import { freeId } from './ids';
import { requireProduct } from './products';
import { materialsOf, snapshotOf, type StoreSnapshot } from './snapshot';
import { takenIds } from './writing';

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

/** When a batch begins, what it is called where that is settled, and what is written down right after. */
interface Begun {
  at: string;
  /** Left out, it is the bar's letters and the day. */
  code?: string;
  more: readonly BatchEvent[];
}

/** Begins a batch of the house's day within a transaction. 404 and 422 as faults. */
export async function startBatch(
  house: House,
  wanted: NewBatch,
  { at, code: own, more }: Begun,
): Promise<BatchDetail> {
  const { db: trx } = house;
  const { product, version, snapshot, sheet } = await planSheet(house, wanted);
  if (own !== undefined && (await takenCodes(trx, own)).has(own))
    throw fault(422, 'code-taken', `There is a batch ${own} already.`, 'code');
  const code = own ?? (await freeCode(trx, product.name, house.today));
  const id = await freeId(code, 'batch', (base) => takenIds(trx, 'batches', base));
  const started: EventOf<'started'> = {
    id: randomUUID(),
    type: 'started',
    at,
    by: wanted.by,
    product: product.id,
    version,
    formula: sheet.formula,
    materials: materialsOf(sheet.formula, snapshot),
    sheet,
    code,
  };
  const events: BatchEvent[] = [started, ...more];
  const [batch, seq] = [foldBatch(events)!, events.length];
  await addNewBatch(trx, { id, seq, productName: product.name }, batch);
  for (const [place, event] of events.entries())
    await addEvent(trx, id, { seq: place + 1, event }, house.now);
  return { id, code, seq, batch, events, sheet };
}
