/** The rack: what every batch waits for, how far it has dried, and one batch with its curve and its net weight. */
import { assess } from '../../../core/assess';
import { batchRequest } from '../../../core/batch/request';
import type { Batch } from '../../../core/batch/types';
import { lightestG, materialsIn, settledBars, usualChecks } from '../../../core/curing/batch-cure';
import { declareNet } from '../../../core/curing/net';
import { againstRelease, rackTasks } from '../../../core/curing/rack';
import { ageOf, dryingOf } from '../../../core/curing/drying';
import { standingOf } from '../../../core/curing/standing';
import { groupBy } from '../../../core/group';
import type { CureData, CuringDays, RackBatch, RackData, StockRow } from '../../../core/records/rack';
import { benchScale } from '../../devices/scale';
import { labelPrinter } from '../../devices/printer';
import type { House } from '../../house';
import { findBatch } from '../../repositories/batches';
import { dropCures } from '../../repositories/cures';
import { countComplaints } from '../../repositories/complaints';
import { photosOf } from '../../repositories/photos';
import { batchesHere, standingsOf } from '../../repositories/standings';
import { findSetting, putSetting } from '../../repositories/settings';
import { labelsOfBatches } from '../../repositories/wraps';
import { curesOf } from '../../store/cures';
import { writing } from '../../store/writing';
import { CutWindows } from './cut-windows';
import { batchesAt, listBatches, requireBatch } from '../../store/batches';
import { requireProduct } from '../../store/products';

/** Cured over poured mass as the formula has it. */
function predictedRatio(batch: Batch, markets: CureData['markets'], onDate: string): number | null {
  const rules = { material: () => undefined, limits: [], declarables: [] };
  const result = assess(batchRequest(batch, rules, { markets, onDate }), rules);
  return result.ok ? result.assessment.masses.curedG / result.assessment.masses.pourG : null;
}

/** Every batch that is not gone, with what it waits for, most urgent first. Only those that wait to be cut are folded. */
export async function rackNow(house: House): Promise<RackData> {
  const summaries = await batchesAt(house, await batchesHere(house.db));
  const standings = await standingsOf(
    house.db,
    summaries.map(({ id }) => id),
  );
  const here = summaries.map((summary) => ({
    ...summary,
    standing: { ...standings.get(summary.id)!, state: summary.state },
  }));
  const curing = here.filter(({ standing }) => standing.cut !== null && standing.state !== 'released');
  const { value: days, revision } = await findSetting(house.db, 'curingDays');
  const cures = await curesOf(house, curing, days.least);
  const windows = new CutWindows(house);
  const batches: RackBatch[] = [];
  for (const { standing, ...summary } of here) {
    const cure = cures.get(summary.id) ?? null;
    const window =
      summary.state === 'poured' ? await windows.of(await requireBatch(house, summary.id)) : null;
    batches.push({
      ...summary,
      ageDays: ageOf(standing, house.now),
      window,
      tasks: rackTasks(standing, house.now, window, cure, days.least),
      drying: dryingOf(standing, house.now, cure),
    });
  }
  return { at: house.now, batches, days, revision };
}

/** Changes the maker's own days, and what was reckoned with the old ones; the newer come back where they were changed in between. */
export async function setCuringDays(
  house: House,
  revision: number,
  days: CuringDays,
): Promise<{ data: RackData; isStale: boolean }> {
  const isStale = await writing(house.db, async (trx) => {
    if ((await findSetting(trx, 'curingDays')).revision !== revision) return true;
    await putSetting(trx, 'curingDays', days);
    await dropCures(trx);
    return false;
  });
  return { data: await rackNow(house), isStale };
}

/** One batch on the rack; 404 where there is none. */
export async function cureData(house: House, id: string): Promise<CureData> {
  const detail = await requireBatch(house, id);
  const { batch } = detail;
  const { productName } = (await findBatch(house.db, id))!;
  const { product } = await requireProduct(house.db, batch.product);
  const { value: days } = await findSetting(house.db, 'curingDays');
  const standing = standingOf(batch);
  const cure = (await curesOf(house, [{ ...detail, standing }], days.least)).get(id)!;
  const window = await new CutWindows(house).of(detail);
  const settled = settledBars(batch, cure, days.least);
  const weights = settled.map(({ massG }) => massG);
  const others = Math.max(0, batch.bars.good - weights.length);
  const planned = batch.released.at(-1)?.netMassG ?? product.netMassG;
  const printed = groupBy(labelPrinter().jobs(), ({ label }) => label);
  const labels = await labelsOfBatches(house.db, [batch.product], [batch.code]);
  return {
    detail,
    productName,
    markets: product.markets,
    at: house.now,
    ageDays: ageOf(batch, house.now),
    days,
    moulds: (await findSetting(house.db, 'moulds')).value,
    window,
    cure,
    predictedRatio: predictedRatio(batch, product.markets, house.today),
    tasks: rackTasks(standing, house.now, window, cure, days.least),
    checks: usualChecks(materialsIn(batch)),
    against: againstRelease(standing, house.now, cure, days.least),
    lightestG: lightestG(settled),
    settledBy: settled.some(({ by }) => by === 'curve') ? 'curve' : settled.length > 0 ? 'weight' : null,
    readabilityG: benchScale().readabilityG,
    net: product.markets.flatMap((market) => {
      const net = declareNet(weights, market, others, planned);
      return net ? [{ market, net }] : [];
    }),
    labels: labels.map(({ id: label, market, issuedOn, netMassG }) => ({
      id: label,
      market,
      issuedOn,
      netMassG,
      printed: (printed.get(label) ?? []).reduce((sum, { copies }) => sum + copies, 0),
    })),
    photos: await photosOf(house.db, id),
    complaints: await countComplaints(house.db, { batch: id }),
  };
}

/** Released bars that are still here, oldest first, by batch. */
export async function stockForSale(house: House): Promise<StockRow[]> {
  const summaries = (await listBatches(house, { state: 'released', product: null })).reverse();
  const free = summaries.filter(({ bars, isQuarantined }) => bars.left > 0 && !isQuarantined);
  const standings = await standingsOf(
    house.db,
    free.map(({ id }) => id),
  );
  return free.map(({ id, code, productName, bars: { left } }): StockRow => {
    const markets = [...new Set(standings.get(id)!.released.flatMap((one) => one.markets))];
    return { batch: id, code, productName, left, markets };
  });
}
