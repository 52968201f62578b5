/** Looks ahead by two years under the rules on file. */
import { barsMade } from '../repositories/products';
import { batchesInHand } from '../repositories/batches';
import { aheadRows, foldAhead, type AheadBatch, type AheadMaterial } from '../../core/change/ahead';
import { dayOf, monthsAfter } from '../../core/quantities/day';
import type { Material } from '../../core/formula/types';
import type { AheadRow, WatchData } from '../../core/records/watch';
import type { House } from '../house';
import { lotsInUse, materialsWithLots } from '../repositories/lots';
import { snapshotOf, type StoreSnapshot } from './snapshot';
import { papersStanding } from './papers';

const YEARS = 2;

function materialsIn(snapshot: StoreSnapshot, ids: Iterable<string>, today: string): AheadMaterial[] {
  const documents = new Map(snapshot.stored.map((one) => [one.material.id, one.documents]));
  return [...ids].flatMap((id) => {
    const material: (Material & { keepingMonths?: number }) | undefined = snapshot.material(id);
    if (!material) return [];
    const papers = documents.get(id) ?? [];
    const { certificate, allergens } = papersStanding(papers, today);
    return [
      {
        id,
        name: material.name,
        constituents: (material.constituents ?? []).map((one) => one.id),
        limits: material.limits ?? [],
        ask: certificate?.ask ?? allergens?.ask ?? null,
        isWater: (material.inci ?? []).length > 0 && material.inci!.every(({ role }) => role === 'water'),
        keepingMonths: material.keepingMonths ?? null,
      },
    ];
  });
}

async function batchesOf({ db, zone }: House): Promise<AheadBatch[]> {
  const rows = await batchesInHand(db);
  return rows.map(({ pouredAt, ...row }) => ({ ...row, pouredOn: dayOf(pouredAt, zone) }));
}

/** What falls due in the next two years if nothing is done. */
export async function lookAhead(house: House): Promise<{ today: string; until: string; rows: AheadRow[] }> {
  const { db, today } = house;
  const until = monthsAfter(today, 12 * YEARS);
  const snapshot = await snapshotOf(db, today);
  const bars = await barsMade(house.db);
  const lots = await lotsInUse(db);
  const ids = new Set([...bars.flatMap(({ materials }) => materials), ...(await materialsWithLots(db))]);
  const rows = aheadRows({
    today,
    until,
    declarables: snapshot.declarables,
    limits: snapshot.limits,
    materials: materialsIn(snapshot, ids, today),
    lots,
    bars,
    batches: await batchesOf(house),
  });
  return { today, until, rows };
}

/** Of what falls due, so many rows come with the screen; the rest is asked for. */
const ROWS_AT_ONCE = 40;

/** What falls due, as the watch opens: the first of those that stand by themselves, small things folded. */
export async function aheadAtOnce(house: House): Promise<WatchData['ahead']> {
  const { until, rows } = await lookAhead(house);
  const { rows: alone, folds } = foldAhead(rows);
  return {
    until,
    count: alone.length,
    rows: alone.slice(0, ROWS_AT_ONCE),
    folds,
    marks: rows.map(({ on, kind }) => ({ on, isRule: kind === 'list' || kind === 'limit' })),
  };
}
