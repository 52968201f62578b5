/** What was made beforehand: lye stock and mixes of fats of which some is left. */
import { isFatty } from '../../../core/formula/fats';
import { LYE_STOCK_MATERIAL } from '../../../core/making/cost';
import type { MadeBeforehand } from '../../../core/records/batch';
import type { House } from '../../house';
import { freeOfMaterials, lotsOf } from '../../repositories/lots';
import { snapshotOf } from '../../store/snapshot';

/** Lots of lye stock that are free, and mixes of fats with what is free of them. */
export async function madeBeforehand({ db, today }: House): Promise<MadeBeforehand> {
  const snapshot = await snapshotOf(db, today);
  const stocks = (await lotsOf(db, [LYE_STOCK_MATERIAL])).filter(
    ({ leftG, quarantine, strengthPct }) => leftG > 0 && quarantine === null && strengthPct != null,
  );
  const mixes = snapshot.stored.flatMap(({ material: { id }, mix }) => {
    const material = mix && snapshot.material(id);
    return material && isFatty(material) ? [material] : [];
  });
  const free = mixes.length > 0 ? await freeOfMaterials(db, today) : new Map<string, number>();
  return {
    stocks: stocks.map(({ id, code, strengthPct, leftG }) => ({
      id,
      code,
      strengthPct: strengthPct!,
      leftG,
    })),
    buckets: mixes.flatMap(({ id, name }) => {
      const freeG = free.get(id) ?? 0;
      return freeG > 0 ? [{ id, name, freeG }] : [];
    }),
  };
}
