/** What to pour next: the pace of every bar, what is ready and curing, what is wanted by a day, and what is missing. */
import { setImmediate as breath } from 'node:timers/promises';
import { barStanding, wantingOf, type BarStanding } from '../../../core/stock/next';
import { groupBy } from '../../../core/group';
import type { NextBar, NextData, NextPlans } from '../../../core/records/next';
import { dayAfter, momentOn } from '../../../core/quantities/day';
import type { KeptSure } from '../../../core/records/sure';
import { widened } from '../../../core/sure/held';
import { worthOf } from '../../../core/stock/tonight';
import { MOST_WEEKS, paceOf, type Pace, type SoldOn } from '../../../core/stock/pace';
import type { House } from '../../house';
import { freeByDate } from '../../repositories/lots';
import { everyKeptRow } from '../../repositories/overviews';
import { productNames } from '../../repositories/products';
import { comingOf, releasedBars, soldSince } from '../../repositories/standings';
import { findSetting, putSetting } from '../../repositories/settings';
import { snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import { BLANK, overviewsOf } from '../../store/overviews';

/** Where the maker has not said when there is time to pour: Tuesdays and Fridays. */
const USUAL_EVENINGS = [2, 5] as const;

/** Bars looked at between two breaths: some milliseconds. */
const BARS_A_BREATH = 5;

/** Paces that were reckoned, by what they were reckoned from; sales come rarely, and every look asks for all of them. */
const paces = new Map<string, Pace>();
const MOST_PACES = 2000;

function paceKept(sold: readonly SoldOn[], since: string, today: string): Pace {
  const key = `${today} ${since} ${sold.map(({ day, bars }) => `${day}*${bars}`).join(' ')}`;
  const known = paces.get(key);
  if (known) return known;
  const made = paceOf(sold, since, today);
  if (paces.size >= MOST_PACES) paces.delete(paces.keys().next().value!);
  paces.set(key, made);
  return made;
}

/** How long every bar lasts, in the maker's order. */
async function standings(house: House): Promise<{ bars: BarStanding[]; cureDays: number; sure: KeptSure }> {
  const { value: plans } = await findSetting(house.db, 'plans');
  const { value: days } = await findSetting(house.db, 'curingDays');
  const { value: sure } = await findSetting(house.db, 'sure');
  const wider = (sold: readonly SoldOn[], since: string, today: string): Pace => {
    const pace = paceKept(sold, since, today);
    return pace.perWeek && sure.wider > 1 ? { ...pace, perWeek: widened(pace.perWeek, sure.wider) } : pace;
  };
  const released = await releasedBars(house.db);
  const coming = groupBy(await comingOf(house.db), ({ product }) => product);
  // A day more than is counted: a day of the house may begin before that of UTC.
  const since = momentOn(dayAfter(house.today, -MOST_WEEKS * 7 - 1), house.zone);
  const sold = await soldSince(house.db, since);
  const bars: BarStanding[] = [];
  for (const bar of await productNames(house.db)) {
    const { firstAt = null, ready = 0 } = released.get(bar.id) ?? {};
    const made = { firstAt, ready, coming: coming.get(bar.id) ?? [], sold: sold.get(bar.id) ?? [] };
    bars.push(barStanding(bar, made, plans, { ...house, cureDays: days.usual, paceOf: wider }));
    if (bars.length % BARS_A_BREATH === 0) await breath();
  }
  return { bars, cureDays: days.usual, sure };
}

/** The day by which the next pour of a bar must start, by bar; only of those that have one. */
export async function startDays(house: House): Promise<Record<string, string>> {
  const { bars } = await standings(house);
  return Object.fromEntries(bars.flatMap(({ id, next }) => (next.startBy ? [[id, next.startBy]] : [])));
}

/** What a pour of a bar would be worth tonight, with what is planned and wanted counted. */
function worthOfPour(
  { id, pace, ready, curing }: BarStanding,
  bars: number | null,
  plans: NextPlans,
  today: string,
  cureDays: number,
): NextBar['worth'] {
  if (bars === null) return null;
  const planned = plans.planned
    .filter((one) => one.product === id && one.day >= today)
    .map((one) => ({ bars: one.bars, readyOn: dayAfter(one.day, cureDays) }));
  const wanted = plans.wanted.filter(({ product, day }) => product === id && day >= today);
  const candidate = { perWeek: pace.perWeek, ready, coming: [...curing, ...planned], wanted, bars };
  return worthOf(candidate, { today, cureDays });
}

/** Figures of a row as long as anybody reads them: a workshop's page carries thousands of them. */
const DIGITS = 6;
const brief = <Row extends object>(row: Row): Row =>
  Object.fromEntries(
    Object.entries(row).map(([key, value]: [string, number]) => [key, Number(value.toPrecision(DIGITS))]),
  ) as Row;

/** Bars with the most pressing first. */
export async function nextData(house: House): Promise<NextData> {
  const { value: plans, revision } = await findSetting(house.db, 'plans');
  const { bars: all, cureDays, sure } = await standings(house);
  const overviews = await overviewsOf(house, await everyKeptRow(house.db, 0, all.length));
  const lots = groupBy(await freeByDate(house.db, house.today), ({ material }) => material);
  const free = new Map([...lots].map(([id, all]) => [id, all.reduce((sum, { massG }) => sum + massG, 0)]));
  const snapshot = await snapshotOf(house.db, house.today);
  const nameOf = (material: string) => snapshot.material(material)?.name ?? material;
  const bars = all.map((standing): NextBar => {
    const wanting = wantingOf(overviews.get(standing.id) ?? BLANK, free, nameOf);
    const worth = worthOfPour(standing, wanting.barsAPour, plans, house.today, cureDays);
    return { ...standing, ...wanting, massG: brief(wanting.massG), worth: worth && brief(worth) };
  });
  const used = new Set(bars.flatMap(({ massG }) => Object.keys(massG)));
  const late = ({ next }: NextBar) => next.startBy ?? '9999';
  return {
    today: house.today,
    sure,
    cureDays,
    bars: bars.sort((a, b) => late(a).localeCompare(late(b)) || a.name.localeCompare(b.name)),
    materials: Object.fromEntries(
      [...used].map((id) => [
        id,
        {
          ...{ name: nameOf(id), freeG: free.get(id) ?? 0 },
          lots: (lots.get(id) ?? []).map(({ massG, until }) => ({ massG, until })),
        },
      ]),
    ),
    evenings: [...USUAL_EVENINGS],
    room: null,
    ...plans,
    revision,
  };
}

/** Keeps what is wanted and planned; the newer one comes back where it was changed in between. */
export async function keepPlans(
  house: House,
  revision: number,
  plans: NextPlans,
): Promise<{ data: NextData; isStale: boolean }> {
  const isStale = await writing(house.db, async (trx) => {
    const known = await findSetting(trx, 'plans');
    if (known.revision !== revision) return true;
    await putSetting(trx, 'plans', { ...known.value, ...plans });
    return false;
  });
  return { data: await nextData(house), isStale };
}
