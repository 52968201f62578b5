/** What the bench needs for one batch: its events, the lots of what it weighs, the moulds and the scale. */
import type { Lot } from '../../../core/making/cost';
import { ALKALI_MATERIAL } from '../../../core/making/cost';
import { LYE_STOCK_LINE } from '../../../core/making/run-sheet-types';
import type { BatchLots, BenchData } from '../../../core/records/batch';
import { benchScale } from '../../devices/scale';
import type { House } from '../../house';
import { lotsOf } from '../../repositories/lots';
import { findBatch } from '../../repositories/batches';
import { findSetting } from '../../repositories/settings';
import { snapshotOf } from '../../store/snapshot';
import { requireBatch } from '../../store/batches';
import { requireProduct } from '../../store/products';

/** Lots of what a batch holds; 404 where there is no such batch. */
export async function batchLots({ db, ...house }: House, id: string): Promise<BatchLots> {
  const { seq, batch } = await requireBatch({ db, ...house }, id);
  const used = new Set(batch.lines.map(({ material }) => material));
  const lots: Record<string, Lot[]> = {};
  for (const lot of await lotsOf(db, [...used, ALKALI_MATERIAL])) {
    if (used.has(lot.material)) (lots[lot.material] ??= []).push(lot);
    const isForStock = lot.material === ALKALI_MATERIAL && !batch.sheet.lyeStock?.isMade;
    if (isForStock && used.has(LYE_STOCK_LINE)) (lots[LYE_STOCK_LINE] ??= []).push(lot);
  }
  return { seq, lots };
}

/** 404 where there is no such batch. */
export async function benchData(house: House, id: string): Promise<BenchData> {
  const detail = await requireBatch(house, id);
  const snapshot = await snapshotOf(house.db, house.today);
  const summary = (await findBatch(house.db, id))!;
  const { product } = await requireProduct(house.db, summary.product);
  const { lots } = await batchLots(house, id);
  const materials = snapshot.stored.map(({ material }) => ({ id: material.id, name: material.name }));
  return {
    detail,
    productName: summary.productName,
    markets: product.markets,
    lots,
    moulds: (await findSetting(house.db, 'moulds')).value,
    readabilityG: benchScale().readabilityG,
    materials: materials.sort((a, b) => a.name.localeCompare(b.name)),
  };
}
