/** The house's own foretellings against what came: the last batches that were released, and what sold. */
import { stockShare } from '../../../core/batch/draw';
import { cureInput, madeOn } from '../../../core/curing/batch-cure';
import { questionOfBatch, readingsOf } from '../../../core/heat/batch-pour';
import { pourOf } from '../../../core/heat/ways';
import { groupsOf } from '../../../core/group';
import { dayAfter, dayOf, daysBetween, momentOn, MS_PER_HOUR } from '../../../core/quantities/day';
import { NOT_LOOKED, type SureData } from '../../../core/records/sure';
import type { BatchDetail } from '../../../core/records/batch';
import { foretoldCost } from '../../../core/sure/foretold-cost';
import { LOOK_DAYS } from '../../../core/sure/foretell';
import { heldByKind, type Foretold } from '../../../core/sure/held';
import { MOST_WEEKS } from '../../../core/stock/pace';
import type { House } from '../../house';
import type { ForetellTask } from '../../jobs/foretell-job';
import { onThread } from '../../jobs/threads';
import { told } from '../../jobs/told';
import { lotsOf } from '../../repositories/lots';
import { productNames } from '../../repositories/products';
import { lastReleased, releasedBars, soldSince, standingsOf } from '../../repositories/standings';
import { findCurrency, findSetting, putSetting } from '../../repositories/settings';
import { requireBatch } from '../../store/batches';
import { curesOf } from '../../store/cures';
import { writing } from '../../store/writing';
import { CutWindows } from './cut-windows';

/** Batches looked back at, and of these such as are folded for their cut and their warmth. */
const MOST_BATCHES = 40;
const MOST_FOLDED = 16;
/** Bars whose sales are looked back at: those that sold most. */
const MOST_BARS = 40;
/** Batches or bars in one job: some hundreds of milliseconds of a thread. */
const IN_ONE_JOB = 4;
const BARS_IN_ONE_JOB = 10;
const LIMIT_MS = 60_000;
/** Looks back of the sales, with the half year that each looks back on. */
const SALE_DAYS = MOST_WEEKS * 7 + 5 * LOOK_DAYS + 1;
/** How old a kept look may be before it is made anew, days. */
const LOOK_AGAIN_DAYS = 7;

const NOTHING: Omit<ForetellTask, 'today'> = { cures: [], heats: [], sales: [] };

/** What is foretold on threads, a few at a time. */
async function onThreads(tasks: readonly Partial<ForetellTask>[], today: string): Promise<Foretold[]> {
  const found = await Promise.all(
    tasks.map((task) =>
      told(onThread('foretell', { ...NOTHING, today, ...task }, { limitMs: LIMIT_MS }), 'kind'),
    ),
  );
  return found.flat();
}

async function soldTasks(house: House): Promise<ForetellTask['sales'][number][]> {
  const { db, today, zone } = house;
  const released = await releasedBars(db);
  const sold = await soldSince(db, momentOn(dayAfter(today, -SALE_DAYS), zone));
  return [...sold]
    .filter(([product]) => released.has(product))
    .sort(([, a], [, b]) => b.length - a.length)
    .slice(0, MOST_BARS)
    .map(([product, sales]) => ({
      product,
      sold: sales.map(({ at, bars }) => ({ day: dayOf(at, zone), bars })),
      since: dayOf(released.get(product)!.firstAt, zone),
    }));
}

const paceTasks = (sales: ForetellTask['sales']) =>
  groupsOf(sales, BARS_IN_ONE_JOB).map((some) => ({ sales: some }));

async function cureTasks(house: House): Promise<ForetellTask['cures'][number][]> {
  const { value: days } = await findSetting(house.db, 'curingDays');
  const batches = await lastReleased(house.db, MOST_BATCHES);
  const standings = await standingsOf(
    house.db,
    batches.map(({ id }) => id),
  );
  const stood = batches.map((one) => ({ ...one, standing: standings.get(one.id)! }));
  const cures = await curesOf(house, stood, days.least);
  return stood.map(({ id, code, standing }) => ({
    product: standing.product,
    code,
    on: madeOn(standing, house.zone),
    ...cureInput(standing, days.least),
    whole: cures.get(id)!,
  }));
}

/** The hour of the cut against the window that was foretold at the pour. */
async function cutOf(windows: CutWindows, detail: BatchDetail, zone: string): Promise<Foretold[]> {
  const { batch, code } = detail;
  const window = batch.cut ? await windows.foretold(detail) : null;
  if (!window || window.toHours === null || !batch.poured || !batch.cut) return [];
  const { fromHours: low, toHours: high } = window;
  const came = (Date.parse(batch.cut.at) - Date.parse(batch.poured.at)) / MS_PER_HOUR;
  const base = { product: batch.product, of: code, on: madeOn(batch, zone) };
  return [{ kind: 'cut', ...base, low, likely: (low + high) / 2, high, came }];
}

/** The cost of a bar of a batch, by its plan and as it was weighed; of none where a price is missing. */
async function costOf({ db, zone }: House, { batch, code }: BatchDetail): Promise<Foretold[]> {
  const used = batch.lines.map(({ material }) => stockShare(batch, material).material);
  const told = { product: batch.product, of: code, on: madeOn(batch, zone) };
  const cost = foretoldCost(told, batch, await lotsOf(db, [...new Set(used)]));
  return cost ? [cost] : [];
}

/** Cuts, costs and warmth of the last batches, which are folded for it. */
async function ofBlocks(house: House): Promise<Foretold[]> {
  const { value: moulds } = await findSetting(house.db, 'moulds');
  const windows = new CutWindows(house);
  const found: Foretold[] = [];
  const heats: ForetellTask['heats'][number][] = [];
  for (const { id } of await lastReleased(house.db, MOST_FOLDED)) {
    const detail = await requireBatch(house, id);
    const { batch, code } = detail;
    found.push(...(await cutOf(windows, detail, house.zone)), ...(await costOf(house, detail)));
    const readings = readingsOf(batch);
    const question = readings.length > 0 ? questionOfBatch(batch, moulds) : null;
    const pour = question && pourOf(question);
    if (pour) heats.push({ product: batch.product, code, on: madeOn(batch, house.zone), pour, readings });
  }
  const tasks = groupsOf(heats, IN_ONE_JOB).map((some) => ({ heats: some }));
  return [...found, ...(await onThreads(tasks, house.today))];
}

async function keep({ db }: House, on: string, foretold: readonly Foretold[]): Promise<void> {
  const held = heldByKind(foretold);
  const { of, within, wider } = held.find(({ kind }) => kind === 'pace') ?? NOT_LOOKED;
  const cost = held.find(({ kind }) => kind === 'cost');
  await writing(db, async (trx) => {
    const known = (await findSetting(trx, 'sure')).value.cost;
    const kept = cost ? { of: cost.of, within: cost.within, wider: cost.wider } : known;
    await putSetting(trx, 'sure', { on, of, within, wider, ...(kept ? { cost: kept } : {}) });
  });
}

/** Everything foretold that has come, and how each kind of it held. */
export async function sureData(house: House): Promise<SureData> {
  const cures = groupsOf(await cureTasks(house), IN_ONE_JOB).map((some) => ({ cures: some }));
  const sales = paceTasks(await soldTasks(house));
  const foretold = [...(await onThreads([...cures, ...sales], house.today)), ...(await ofBlocks(house))].sort(
    (a, b) => b.on.localeCompare(a.on) || a.of.localeCompare(b.of),
  );
  await keep(house, house.today, foretold);
  const names = Object.fromEntries((await productNames(house.db)).map(({ id, name }) => [id, name]));
  const currency = await findCurrency(house.db);
  return { today: house.today, held: heldByKind(foretold), foretold, names, currency };
}

/** Looks back at what sold where that was last done so long ago, so that the pace is as wide as it has to be. */
export async function lookBackAtPace(house: House): Promise<void> {
  const { value: kept } = await findSetting(house.db, 'sure');
  if (kept.on !== null && daysBetween(kept.on, house.today) < LOOK_AGAIN_DAYS) return;
  const sales = await soldTasks(house);
  await keep(house, house.today, await onThreads(paceTasks(sales), house.today));
}
