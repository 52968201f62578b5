/** The range: every bar in one row, with its verdicts, its label, its bars and what is to be done about it. */
import { setImmediate as breath } from 'node:timers/promises';
import { groupBy } from '../../../core/group';
import { handOfTask } from '../../../core/hands/sources';
import type { RangeData, RangeRow } from '../../../core/records/range';
import type { House } from '../../house';
import { openTasks } from '../../repositories/changes';
import {
  barCount,
  barsAbout,
  everyKeptRow,
  type BarsAbout,
  type KeptRow,
} from '../../repositories/overviews';
import { BLANK, overviewsOf } from '../../store/overviews';

/** Bars out of date that are reckoned before the answer; the rest follow in the background. */
const AT_ONCE = 50;
/** Rows read in one statement, so that others are answered in between. */
const PIECE = 250;
const NO_BARS: BarsAbout = { ready: 0, curing: 0, sold: 0 };

async function keptRows({ db }: House, most: number): Promise<KeptRow[]> {
  const rows: KeptRow[] = [];
  while (rows.length < most) {
    const piece = await everyKeptRow(db, rows.length, Math.min(PIECE, most - rows.length));
    rows.push(...piece);
    if (piece.length < PIECE) break;
    await breath();
  }
  return rows;
}

/** Every bar, or the first so many: those of the range before those put away. */
export async function rangeData(house: House, most = Infinity): Promise<RangeData> {
  const kept = await keptRows(house, most);
  const overviews = await overviewsOf(house, kept, AT_ONCE);
  const bars = await barsAbout(house.db);
  const open = await openTasks(
    house.db,
    kept.map(({ id }) => id),
  );
  const tasks = groupBy(open, ({ bar }) => bar ?? null);
  const rows = kept.map(({ id, product: { name, note, collection = '' }, putAwayOn }): RangeRow => {
    const { regimes: _, ...overview } = overviews.get(id) ?? BLANK;
    return {
      ...{ id, name, note, collection, putAwayOn },
      ...overview,
      isPending: !overviews.has(id),
      ...(bars.get(id) ?? NO_BARS),
      tasks: (tasks.get(id) ?? []).map(handOfTask),
    };
  });
  return { rows, count: await barCount(house.db), pending: rows.filter(({ isPending }) => isPending).length };
}
