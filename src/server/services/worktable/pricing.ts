/** What bars are sold for and what making them takes: kept for the house, a price for each bar. */
import { NO_PRICING, PRICE_DOUBT } from '../../../core/making/price';
import { quantile } from '../../../core/numerics/random';
import { MS_PER_HOUR } from '../../../core/quantities/day';
import type { Interval } from '../../../core/curing/cure-types';
import type { PricingData, PricingOfBar } from '../../../core/records/pricing';
import type { House } from '../../house';
import { findSetting, putSetting } from '../../repositories/settings';
import { listBatches, requireBatch } from '../../store/batches';
import { requireProduct } from '../../store/products';
import { writing } from '../../store/writing';

/** A pour that took longer was left standing or written down later. */
const LONGEST_HOURS = 10;
/** Of fewer batches than these, what was measured may be off by so much of it. */
const FEW = 4;
const FEW_DOUBT = 0.25;

/** The hours of some pours with what holds for eight of ten; null of none. */
function hoursOf(measured: readonly number[]): Interval | null {
  if (measured.length === 0) return null;
  const sorted = [...measured].sort((a, b) => a - b);
  const likely = quantile(sorted, 0.5);
  if (sorted.length < FEW) return { low: likely * (1 - FEW_DOUBT), likely, high: likely * (1 + FEW_DOUBT) };
  return { low: quantile(sorted, 0.1), likely, high: quantile(sorted, 0.9) };
}

/** What a batch is cut from, by the moulds of its run sheet; null where they differ or nobody measured them. */
async function cutFrom(house: House, batch: string | undefined): Promise<PricingData['from']> {
  if (batch === undefined) return null;
  const filled = (await requireBatch(house, batch)).batch.sheet.moulds;
  const { value: moulds } = await findSetting(house.db, 'moulds');
  const known = filled.map(({ id }) => moulds.find((mould) => mould.id === id));
  if (known.length > 0 && known.every((mould) => mould?.isSingle)) return 'cavities';
  const [mould] = known;
  if (known.length !== 1 || mould?.make?.form !== 'block') return null;
  return { mould: mould.name, lengthMm: mould.make.lengthMm, count: filled[0]!.count };
}

/** Prices and what they are reckoned with, of one bar; 404 where there is no such bar. */
export async function pricingData(house: House, id: string): Promise<PricingData> {
  await requireProduct(house.db, id);
  const { value, revision } = await findSetting(house.db, 'pricing');
  const { prices, ...pricing } = { ...NO_PRICING, ...value };
  const batches = await listBatches(house, { state: null, product: id });
  const measured = batches.flatMap(({ startedAt, pouredAt }) => {
    const hours = pouredAt === null ? 0 : (Date.parse(pouredAt) - Date.parse(startedAt)) / MS_PER_HOUR;
    return hours > 0 && hours <= LONGEST_HOURS ? [hours] : [];
  });
  const price = Object.hasOwn(prices, id) ? prices[id]! : null;
  const from = await cutFrom(house, batches.find(({ state }) => state !== 'stopped')?.id);
  const { cost = { of: 0, within: 0, wider: 1 } } = (await findSetting(house.db, 'sure')).value;
  const doubt = { share: PRICE_DOUBT * cost.wider, of: cost.of, within: cost.within };
  return {
    pricing: { ...pricing, price },
    ...{ revision, hours: hoursOf(measured), batches: measured.length, doubt, from },
  };
}

/** Keeps them; the newer come back where they were changed in between. */
export async function keepPricing(
  house: House,
  id: string,
  revision: number,
  { price, ...pricing }: PricingOfBar,
): Promise<{ data: PricingData; isStale: boolean }> {
  await requireProduct(house.db, id);
  const isStale = await writing(house.db, async (trx) => {
    const known = await findSetting(trx, 'pricing');
    if (known.revision !== revision) return true;
    const { [id]: _, ...others } = known.value.prices;
    await putSetting(trx, 'pricing', {
      ...pricing,
      prices: price === null ? others : { ...others, [id]: price },
    });
    return false;
  });
  return { data: await pricingData(house, id), isStale };
}
