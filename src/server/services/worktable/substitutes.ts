/** What could take the place of a material, from the cupboard and the library, ranked by what it does to the bars. */
import { rankInBar, type StandInBar } from '../../../core/change/in-bar';
import { rankSubstitutes } from '../../../core/change/substitutes';
import type { Material } from '../../../core/formula/types';
import type { LineSubstitutes, RankedInBar, RankedSubstitute } from '../../../core/records/watch';
import { LIBRARY } from '../../../library';
import type { House } from '../../house';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { barsForOverview } from '../../repositories/overviews';
import { freeOfMaterials } from '../../repositories/lots';
import { findCurrency } from '../../repositories/settings';
import { requireProduct } from '../../store/products';
import { sharedSetting } from '../../store/shared';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { placesOf, readPlaces } from '../../store/places';
import { wordsOfBar } from '../../store/overviews';
import { pricesPerGram } from './products';

const LIMIT_MS = 30_000;
/** Bars that are reckoned, and candidates shown. */
const MOST_BARS = 60;
const MOST_SHOWN = 24;

/** Materials of the same kind, own ones and the library's. */
function alike({ own }: StoreSnapshot, { id: from, kind }: Material): Material[] {
  const shipped = LIBRARY.filter(({ id }) => !own.has(id));
  return [...own.values(), ...shipped].filter((one) => one.kind === kind && one.id !== from);
}

/** Candidates of the same kind, the best first, with how many bars hold the material; 404 where it is not known. */
export async function substitutesFor(
  house: House,
  from: string,
): Promise<{ bars: number; substitutes: RankedSubstitute[] }> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const material = snapshot.material(from);
  if (!material) throw fault(404, 'unknown-material', `There is no material "${from}".`, 'id');
  const candidates = alike(snapshot, material);
  const places = await placesOf(house, { kind: 'swap', from, to: from, by: 'mass' });
  const subjects = await readPlaces(db, places.slice(0, MOST_BARS));
  const side = { setting: sharedSetting(snapshot), onDate: today };
  const bars = await barsForOverview(
    db,
    subjects.map(({ subject }) => subject.id),
  );
  const words = Object.fromEntries(bars.map((bar) => [bar.product.id, wordsOfBar(bar)]));
  const job = { side, from, candidates: candidates.map(({ id }) => id), subjects, words };
  const judged = await onThread('substitutes', job, { limitMs: LIMIT_MS });
  const prices = await pricesPerGram(db);
  const own = prices[from];
  const ranked = rankSubstitutes(
    judged.map((one, at) => ({
      ...one,
      name: candidates[at]!.name,
      isOwn: snapshot.own.has(one.id),
      priceRatio: own && prices[one.id] ? prices[one.id]! / own : null,
    })),
  );
  // What is in the cupboard is always shown, however far down it stands.
  return { bars: places.length, substitutes: ranked.filter(({ isOwn }, at) => at < MOST_SHOWN || isOwn) };
}

/**
 * What could stand on a line of a bar, the best first, beside what stands there now. 404 where the bar is not known, 422
 * where it has no such line.
 */
export async function substitutesOnLine(
  house: House,
  product: string,
  line: string,
): Promise<LineSubstitutes> {
  const { db, today } = house;
  await requireProduct(db, product);
  const [bar] = await barsForOverview(db, [product]);
  const from = bar!.formula.lines.find(({ id }) => id === line)?.material;
  if (from === undefined)
    throw fault(422, 'unknown-line', 'This bar has no such line. Save it first.', 'line');
  const snapshot = await snapshotOf(db, today);
  const material = snapshot.material(from);
  if (!material) throw fault(404, 'unknown-material', `There is no material "${from}".`, 'id');
  const candidates = alike(snapshot, material);
  const { markets, firstPlacedOn } = bar!.product;
  const judged = await onThread(
    'inBar',
    {
      side: { setting: sharedSetting(snapshot), onDate: today },
      line,
      candidates: candidates.map(({ id }) => id),
      sold: { markets, firstPlacedOn },
      formula: bar!.formula,
      words: wordsOfBar(bar!),
    },
    { limitMs: LIMIT_MS },
  );
  const prices = await pricesPerGram(db);
  const free = await freeOfMaterials(db, today);
  const { massG } = judged;
  const told = (one: StandInBar, of: Material): RankedInBar => {
    const [price, was] = [prices[of.id], prices[from]];
    const costMore = price === undefined || was === undefined ? null : (price - was) * massG;
    return { ...one, name: of.name, isOwn: snapshot.own.has(of.id), costMore, freeG: free.get(of.id) ?? 0 };
  };
  const ranked = rankInBar(
    judged.candidates.map((one, at) => told(one, candidates[at]!)),
    massG,
  );
  return {
    now: told(judged.now, material),
    // What is in the cupboard is always shown, however far down it stands.
    candidates: ranked.filter(({ isOwn }, at) => at < MOST_SHOWN || isOwn),
    currency: await findCurrency(db),
  };
}
