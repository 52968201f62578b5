/** Which few swaps of scents take most names off the labels of all bars. */
import { isScentBlend } from '../../../core/formula/mix';
import type { RangeNames, RangeNamesAsked } from '../../../core/records/scent';
import type { House } from '../../house';
import { onThread } from '../../jobs/threads';
import { barsForOverview } from '../../repositories/overviews';
import { productNames } from '../../repositories/products';
import { sharedSetting } from '../../store/shared';
import { snapshotOf } from '../../store/snapshot';

const MOST_SWAPS = 4;
/** The best that was found by then is answered; after the second the thread is ended. */
const WITHIN_MS = 20_000;
const LIMIT_MS = 60_000;

/** The best sets of one swap, two and so on, of single scents of the cupboard, over bars that are not put away. */
export async function rangeNames(
  { db, today }: House,
  { onDate = today, mostMovedPct }: RangeNamesAsked,
): Promise<RangeNames> {
  const snapshot = await snapshotOf(db, onDate);
  const bars = await barsForOverview(
    db,
    (await productNames(db)).map(({ id }) => id),
  );
  const candidates = [...snapshot.own.values()].filter((one) => !one.madeOf?.length && isScentBlend(one));
  const task = {
    setting: sharedSetting(snapshot),
    bars: bars
      .filter(({ product }) => product.putAwayOn == null)
      .map(({ product: { id, markets, firstPlacedOn }, formula }) => ({
        id,
        formula,
        sold: { markets, firstPlacedOn },
      })),
    candidates: candidates.map(({ id }) => id),
    onDate,
    most: MOST_SWAPS,
    ...{ mostMovedPct, withinMs: WITHIN_MS },
  };
  const { names, points, unknown, isCutShort } = await onThread('rangeNames', task, { limitMs: LIMIT_MS });
  const barName = new Map(bars.map(({ product }) => [product.id, product.name]));
  const scent = (id: string) => ({ id, name: snapshot.material(id)?.name ?? id });
  const named = (all: readonly { bar: string; names: string[] }[]) =>
    all.map((one) => ({ bar: barName.get(one.bar) ?? one.bar, names: one.names }));
  const used = [
    ...new Set(task.bars.flatMap(({ formula }) => formula.lines.map(({ material }) => material))),
  ];
  const blendsWith = (part: string) =>
    used.filter((id) => snapshot.material(id)?.madeOf?.some(({ material }) => material === part)).map(scent);
  return {
    onDate,
    names,
    points: points.map(({ swaps, names: left, off, on, moved }) => ({
      swaps: swaps.map(({ from, to }) => ({ from: scent(from), to: scent(to), blends: blendsWith(from) })),
      names: left,
      off: named(off),
      on: named(on),
      moved: moved.map(({ bar, pct }) => ({ bar: barName.get(bar) ?? bar, pct })),
    })),
    unknown: unknown.map((id) => scent(id).name),
    isCutShort,
  };
}
