/**
 * Verdicts that overviews show. They are kept beside the bars with a stamp of everything they were made from,
 * and made anew on threads where the stamp no longer holds: for the rows that are asked for at once, for the
 * rest in the background.
 */
import { noteFault } from '../log';
import type { Knex } from 'knex';
import type { Overview, OverviewInput } from '../../core/overview';
import type { Market } from '../../core/formula/types';
import type { Regime } from '../../core/labels/standing';
import type { PageOfBars } from '../../core/records/product';
import type { TriedBar } from '../../core/records/range';
import type { House } from '../house';
import { onThread } from '../jobs/threads';
import {
  barsForOverview,
  overviewStamps,
  putOverviews,
  rangeRows,
  type BarForOverview,
  type KeptRow,
} from '../repositories/overviews';
import { findSetting } from '../repositories/settings';
import { issuedCounts } from '../repositories/wraps';
import { sharedSetting } from './shared';
import { snapshotOf } from './snapshot';
import { writing } from './writing';
import { wordsOfWrap } from '../../core/claims/words';

/** Bars reckoned in one job: some tens of milliseconds of a thread's time. */
const CHUNK = 25;
const LIMIT_MS = 20_000;
/** Rows of an overview on one page. */
const PAGE = 50;
/** Counts every change of what an overview holds; those of an older shape are made anew. */
const SHAPE = 5;

async function groundStamp({ db, today }: House): Promise<string> {
  const snapshot = await snapshotOf(db, today);
  const { revision } = await findSetting(db, 'ownPhrases');
  return `${SHAPE} ${snapshot.id} ${revision}`;
}

/** Everything the maker says of a bar. */
export function wordsOfBar({ product, wrap }: Pick<BarForOverview, 'product' | 'wrap'>): string {
  const { name, note, identity } = product;
  return wrap ? wordsOfWrap(product, wrap) : [name, note, identity].join('\n');
}

function inputOf(bar: BarForOverview, onDate: string): OverviewInput {
  const { product, formula, issued } = bar;
  const { markets, firstPlacedOn } = product;
  const words = wordsOfBar(bar);
  const said = issued.map(({ market, school, content }) => ({
    market,
    school,
    says: content.info.map(({ text }) => text).join('\n'),
  }));
  return { formula, markets, firstPlacedOn, onDate, words, issued: said };
}

/** Keeps overviews for the next look. A disk that is full costs that, and no page. */
async function keepOverviews(db: Knex, rows: Parameters<typeof putOverviews>[1]): Promise<void> {
  try {
    await writing(db, (trx) => putOverviews(trx, rows));
  } catch (error) {
    noteFault('overviews not kept', error);
  }
}

/** Makes the overviews of some bars on threads and keeps them; answers them by bar. */
async function remake(house: House, ids: readonly string[]): Promise<Map<string, Overview>> {
  const made = new Map<string, Overview>();
  const setting = sharedSetting(
    await snapshotOf(house.db, house.today),
    await findSetting(house.db, 'ownPhrases'),
  );
  const ground = await groundStamp(house);
  for (let at = 0; at < ids.length; at += CHUNK) {
    const bars = await barsForOverview(house.db, ids.slice(at, at + CHUNK));
    const inputs = bars.map((bar) => inputOf(bar, house.today));
    const overviews = await onThread('overviews', { setting, bars: inputs }, { limitMs: LIMIT_MS });
    const rows = bars.map(({ product, own }, index) => ({
      id: product.id,
      stamp: `${ground} ${own}`,
      overview: overviews[index]!,
    }));
    await keepOverviews(house.db, rows);
    for (const { id, overview } of rows) made.set(id, overview);
  }
  return made;
}

const remaking = new WeakMap<Knex, Promise<unknown>>();

/** Remakes in the background whatever is out of date; one such run at a time. */
function remakeRest(house: House, ground: string): void {
  if (remaking.has(house.db)) return;
  const run = overviewStamps(house.db)
    .then((stamps) =>
      remake(
        house,
        stamps.filter(({ own, stamp }) => stamp !== `${ground} ${own}`).map(({ id }) => id),
      ),
    )
    // A database closed meanwhile, or one that cannot be read: the next look remakes what it needs.
    .catch((error: unknown) => noteFault('overviews not remade', error))
    .finally(() => remaking.delete(house.db));
  remaking.set(house.db, run);
}

/** Resolves when no overview is being remade; for tests and for closing down. */
export async function overviewsSettled(db: Knex): Promise<void> {
  await remaking.get(db);
}

/**
 * The overviews of some rows. Where they are out of date, so many are made anew at once; those beyond are made in the
 * background and are not among the answers yet.
 */
export async function overviewsOf(
  house: House,
  rows: readonly Pick<KeptRow, 'id' | 'own' | 'stamp' | 'overview'>[],
  atOnce = rows.length,
): Promise<Map<string, Overview>> {
  const ground = await groundStamp(house);
  const isCurrent = ({ stamp, own }: { stamp: string | null; own: string }) => stamp === `${ground} ${own}`;
  const stale = rows.filter((row) => !isCurrent(row)).map(({ id }) => id);
  const fresh = stale.length > 0 ? await remake(house, stale.slice(0, atOnce)) : new Map<string, Overview>();
  if (stale.length > 0) remakeRest(house, ground);
  for (const row of rows) if (row.overview && isCurrent(row)) fresh.set(row.id, row.overview);
  return fresh;
}

/** Bars tried on another day or in other markets; nothing is kept. Bars that are gone are left out. */
export async function tryBars(
  house: House,
  ids: readonly string[],
  { onDate = house.today, markets }: { onDate?: string; markets?: Market[] },
): Promise<TriedBar[]> {
  const setting = sharedSetting(
    await snapshotOf(house.db, onDate),
    await findSetting(house.db, 'ownPhrases'),
  );
  const tried: TriedBar[] = [];
  for (let at = 0; at < ids.length; at += CHUNK) {
    const bars = await barsForOverview(house.db, ids.slice(at, at + CHUNK));
    const inputs = bars.map((bar) => ({ ...inputOf(bar, onDate), ...(markets ? { markets } : {}) }));
    const overviews = await onThread('overviews', { setting, bars: inputs }, { limitMs: LIMIT_MS });
    bars.forEach(({ product: { id } }, index) => {
      const { verdict, markets: stands, fault } = overviews[index]!;
      tried.push({ id, verdict, markets: stands, fault });
    });
  }
  return tried;
}

/** Stands for a bar that is still being reckoned. */
export const BLANK: Overview = {
  verdict: null,
  closest: null,
  fault: 'It was changed just now.',
  regimes: {},
  margin: 0.1,
  markets: [],
  scents: [],
  label: 'none',
  pour: null,
};

export interface RangeQuery {
  /** Letters of a name. */
  find?: string;
  /** Those put away instead of those in the range. */
  putAway?: boolean;
  /** From 1. */
  page?: number;
}

/** A page of bars with their overviews. */
async function pageOf(house: House, query: RangeQuery) {
  const { find = '', putAway = false } = query;
  const { rows, count, page } = await rangeRows(house.db, {
    find,
    putAway,
    page: query.page ?? 1,
    size: PAGE,
  });
  const shown: PageOfBars = { page, pages: Math.max(1, Math.ceil(count / PAGE)), count, find, putAway };
  return { rows, overviews: await overviewsOf(house, rows), shown };
}

export interface WrapRow {
  id: string;
  name: string;
  regimes: Partial<Record<Market, Regime>>;
  issued: number;
}

/** What every bar of a page is in every market, and how many labels were issued for it. */
export async function wrapOverview(
  house: House,
  query: RangeQuery = {},
): Promise<PageOfBars & { rows: WrapRow[] }> {
  const { rows, overviews, shown } = await pageOf(house, query);
  const issued = await issuedCounts(house.db);
  return {
    rows: rows.map(({ id, product: { name } }) => ({
      id,
      name,
      regimes: overviews.get(id)?.regimes ?? {},
      issued: issued.get(id) ?? 0,
    })),
    ...shown,
  };
}
