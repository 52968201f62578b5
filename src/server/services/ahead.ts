/** Looks ahead by two years under the rules on file. */
import { aheadRows, type AheadBar, type AheadBatch, type AheadMaterial } from '../../core/change/ahead';
import { dayOf, monthsAfter } from '../../core/quantities/day';
import type { Market, Material } from '../../core/formula/types';
import { groupBy } from '../../core/group';
import type { AheadRow } from '../../core/records/watch';
import type { House } from '../house';
import { allLots } from '../repositories/lots';
import { snapshotOf, type StoreSnapshot } from '../store/snapshot';
import { papersStanding } from './materials';

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
        keepingMonths: material.keepingMonths ?? null,
      },
    ];
  });
}

async function barsOf({ db }: House): Promise<AheadBar[]> {
  const rows: { id: string; name: string; markets: string }[] = await db.raw(
    "select id, name, json_extract(body, '$.markets') as markets from products where put_away_on is null",
  );
  const uses: { product_id: string; material_id: string }[] = await db('product_materials').select();
  const byProduct = groupBy(uses, ({ product_id }) => product_id);
  return rows.map(({ id, name, markets }) => ({
    id,
    name,
    markets: JSON.parse(markets) as Market[],
    materials: (byProduct.get(id) ?? []).map(({ material_id }) => material_id),
  }));
}

async function batchesOf({ db, zone }: House): Promise<AheadBatch[]> {
  const rows: (Omit<AheadBatch, 'pouredOn'> & { pouredAt: string })[] = await db.raw(
    `select b.id, b.code, p.name, json_extract(b.summary, '$.bars.left') as left,
            json_extract(b.summary, '$.pouredAt') as pouredAt,
            json_extract(w.body, '$.durability.months') as months
     from batches as b join products as p on p.id = b.product_id left join wraps as w on w.product_id = b.product_id
     where b.weighed is not null and b.state not in ('stopped', 'discarded', 'soldOut')`,
  );
  return rows.map(({ pouredAt, ...row }) => ({ ...row, pouredOn: dayOf(pouredAt, zone) }));
}

/** What falls due in the next two years if nothing is done. */
export async function lookAhead(house: House): Promise<{ today: string; until: string; rows: AheadRow[] }> {
  const { db, today } = house;
  const until = monthsAfter(today, 12 * YEARS);
  const snapshot = await snapshotOf(db, today);
  const bars = await barsOf(house);
  const lots = await allLots(db);
  const ids = new Set([
    ...bars.flatMap(({ materials }) => materials),
    ...lots.map(({ material }) => material),
  ]);
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
