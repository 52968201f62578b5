/** What a label of one batch is made from: what was weighed, under the papers of today, and its own bars. */
import { assess } from '../../../core/assess';
import { batchRequest } from '../../../core/batch/request';
import { dayOf } from '../../../core/quantities/day';
import { madeOn, placedDays } from '../../../core/curing/batch-cure';
import { MARKETS } from '../../../core/formula/types';
import { durabilityFrom } from '../../../core/labels/content';
import type { BatchSummary } from '../../../core/records/batch';
import type { Wrap } from '../../../core/records/wrap';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { materialsOf, snapshotOf } from '../../store/snapshot';
import { settledNow } from '../../store/cures';
import { type AssessedProduct } from '../../store/assessed';
import { labelledCodes } from '../../repositories/wraps';
import { listBatches, requireBatch } from '../../store/batches';
import { requireProduct } from '../../store/products';

/** What a batch puts in the place of the wrap's own. */
export interface OfBatch {
  id: string;
  code: string;
  /** The day it was poured. */
  madeOn: string;
  /** Bars by their settled mass; never by a weight of their fresh days. */
  weighedG: number[];
  netMassG: number | null;
  /** The lightest settled bar, grams; null where none is known. */
  lightestG: number | null;
  /** The day of its release; null before it. */
  releasedOn: string | null;
}

/** A bar as one of its batches was weighed, in every market; 404 and 422 as faults. */
export async function assessBatchEverywhere(
  house: House,
  productId: string,
  batchId: string,
): Promise<AssessedProduct & { ofBatch: OfBatch }> {
  const { product, version } = await requireProduct(house.db, productId);
  const { batch } = await requireBatch(house, batchId);
  if (batch.product !== productId)
    throw fault(422, 'other-bar', `Batch ${batch.code} is not of ${product.name}.`, 'batch');
  const snapshot = await snapshotOf(house.db, house.today);
  const request = batchRequest(batch, snapshot, {
    markets: [...MARKETS],
    onDate: house.today,
    firstPlacedOn: product.firstPlacedOn,
    placedOn: placedDays(batch, house.zone),
    materials: 'stored',
  });
  const { bars, lightestG } = await settledNow(house.db, batch);
  const result = assess(request, snapshot);
  if (!result.ok) throw new HttpFault(422, result.errors);
  return {
    product,
    version: { ...version, formula: request.formula },
    assessment: result.assessment,
    materials: materialsOf(request.formula, snapshot),
    ofBatch: {
      id: batchId,
      code: batch.code,
      madeOn: madeOn(batch, house.zone),
      weighedG: bars.map(({ massG }) => massG),
      lightestG,
      netMassG: batch.released.at(-1)?.netMassG ?? null,
      releasedOn: batch.released[0] ? dayOf(batch.released[0].at, house.zone) : null,
    },
  };
}

/** The newest batch of a bar that is still here, not held back, and has no label yet, by its id; null where there is none. */
export async function batchToLabel(house: House, productId: string): Promise<string | null> {
  const isHere = ({ pouredAt, state, isQuarantined }: BatchSummary) =>
    pouredAt !== null &&
    !isQuarantined &&
    state !== 'discarded' &&
    state !== 'stopped' &&
    state !== 'soldOut';
  const here = (await listBatches(house, { state: null, product: productId })).filter(isHere);
  const codes = here.map(({ code }) => code);
  const labelled = await labelledCodes(house.db, productId, codes);
  return here.find(({ code }) => !labelled.has(code))?.id ?? null;
}

/** A wrap as it is for a batch: its code, its bars, its net weight. */
export function wrapOfBatch(
  wrap: Wrap,
  ofBatch: Pick<OfBatch, 'code' | 'madeOn' | 'weighedG' | 'netMassG'> | null,
): Wrap {
  if (!ofBatch) return wrap;
  const { code, madeOn, weighedG, netMassG } = ofBatch;
  return {
    ...wrap,
    batchCode: code,
    weighedG: netMassG === null ? weighedG : [],
    netMassG: netMassG ?? wrap.netMassG,
    durability: wrap.durability && durabilityFrom(wrap.durability, madeOn),
  };
}
