/** What could take the place of a material, from the cupboard and the library, ranked by what it does to the bars. */
import { rankSubstitutes } from '../../../core/change/substitutes';
import type { RankedSubstitute } from '../../../core/records/watch';
import { LIBRARY } from '../../../library';
import type { House } from '../../house';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { barsForOverview } from '../../repositories/overviews';
import { sharedSetting } from '../../store/shared';
import { snapshotOf } from '../../store/snapshot';
import { placesOf, readPlaces } from '../watch/change-subjects';
import { wordsOfBar } from '../range/overviews';
import { pricesPerGram } from './products';

const LIMIT_MS = 30_000;
/** Bars that are reckoned, and candidates shown. */
const MOST_BARS = 60;
const MOST_SHOWN = 24;

/** Candidates of the same kind, the best first, with how many bars hold the material; 404 where it is not known. */
export async function substitutesFor(
  house: House,
  from: string,
): Promise<{ bars: number; substitutes: RankedSubstitute[] }> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const material = snapshot.material(from);
  if (!material) throw fault(404, 'unknown-material', `There is no material "${from}".`, 'id');
  const shipped = LIBRARY.filter(({ id }) => !snapshot.own.has(id));
  const candidates = [...snapshot.own.values(), ...shipped].filter(
    ({ id, kind }) => kind === material.kind && id !== from,
  );
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
