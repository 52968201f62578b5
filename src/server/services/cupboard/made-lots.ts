/** Lots that are made here of lots: drawn from what they are made of in the transaction that takes them down. */
import type { Knex } from 'knex';
import { lotRefusal } from '../../../core/batch/draw';
import { heldFor } from '../../../core/batch/held';
import { ALKALI_MATERIAL, LYE_STOCK_MATERIAL, type Lot } from '../../../core/making/cost';
import { lyeStrength, mixFaults } from '../../../core/making/made-lot';
import type { CupboardEntry } from '../../../core/records/cupboard';
import { nextCodes } from '../../../core/stock/lot-code';
import type { MadeLot } from '../../doors/shelf';
import type { House } from '../../house';
import { fault, HttpFault } from '../../http';
import { addLot, addMovement, allLots, findLot, putLot, touchLot } from '../../repositories/lots';
import { findMaterial } from '../../repositories/materials';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { takenIds } from '../../store/writing';
import { freeId } from '../../store/ids';
import { changing, requireMaterial, takeMaterial } from '../../store/materials';

type Taken = MadeLot['of'][number] & { known: Lot | null };

/** The lots that are named, each of its material and free to be taken, or taken with a reason. */
async function sourcesOf(trx: Knex, today: string, of: MadeLot['of']): Promise<Taken[]> {
  const sources: Taken[] = [];
  for (const [at, one] of of.entries()) {
    const known = one.lot === null ? null : await findLot(trx, one.lot);
    if (one.lot !== null && known?.material !== one.material)
      throw fault(422, 'unknown-lot', `There is no lot "${one.lot}" of ${one.material}.`, `of.${at}.lot`);
    const against = known && !one.despite ? lotRefusal(known, one.massG, today) : null;
    if (against) throw fault(422, against.code, against.message, `of.${at}.lot`);
    sources.push({ ...one, known });
  }
  return sources;
}

/** Of a lye stock how strong it is; of a mix nothing, where it is what the mix says. */
async function strengthOf(
  trx: Knex,
  id: string,
  of: MadeLot['of'],
  snapshot: StoreSnapshot,
): Promise<number | null> {
  const nameOf = (material: string) => snapshot.material(material)?.name ?? material;
  if (id === LYE_STOCK_MATERIAL) {
    const other = of.findIndex(({ material }) => {
      const kind = snapshot.material(material)?.kind;
      return material !== ALKALI_MATERIAL && kind !== 'liquid';
    });
    if (other >= 0)
      throw fault(
        422,
        'not-of-a-stock',
        `A lye stock is sodium hydroxide and liquid, not ${nameOf(of[other]!.material)}.`,
        `of.${other}.material`,
      );
    const pct = lyeStrength(of);
    if (typeof pct !== 'number') throw new HttpFault(422, [pct]);
    return pct;
  }
  const { mix } = (await findMaterial(trx, id))!;
  if (!mix) throw fault(422, 'no-mix', 'Only a mix or a lye stock is made here.', 'id');
  const faults = mixFaults(mix, of, nameOf);
  if (faults.length > 0) throw new HttpFault(422, faults);
  return null;
}

const earliest = (days: readonly (string | null)[]) =>
  days.filter((day): day is string => day !== null).sort()[0] ?? null;

/** What was taken cost, by the price of each lot for what it held; null where one of them has none. */
function priceOf(sources: readonly Taken[]): number | null {
  const costs = sources.map(({ known, massG }) =>
    known?.price == null || known.quantityG <= 0 ? null : (known.price / known.quantityG) * massG,
  );
  const known = costs.filter((cost) => cost !== null);
  return known.length > 0 && sources.every(({ known: lot }, at) => lot === null || costs[at] !== null)
    ? Number(known.reduce((sum, cost) => sum + cost, 0).toFixed(2))
    : null;
}

/**
 * Makes a lot of a mix or of lye stock out of lots: they are drawn from, and it is best before the first of them is. `key`
 * names the request. 404 for an unknown material; 422 where a lot is not to be taken, the shares are not the mix's, or the
 * stock would be too weak or too strong.
 */
export function makeOfLots(
  house: House,
  id: string,
  { code, of, bestBefore }: MadeLot,
  key: string | null = null,
): Promise<CupboardEntry> {
  const action = async (trx: Knex) => {
    if (id === LYE_STOCK_MATERIAL) await takeMaterial(trx, id, null);
    await requireMaterial(trx, id);
    const snapshot = await snapshotOf(trx, house.today);
    const strengthPct = await strengthOf(trx, id, of, snapshot);
    const nameOf = (material: string) => snapshot.material(material)?.name ?? material;
    const sources = await sourcesOf(trx, house.today, of);
    const codes = (await allLots(trx)).map((lot) => lot.code);
    const own = code?.trim() || nextCodes(codes, [nameOf(id)], house.today)[0]!;
    const lotId = await freeId(`${id} ${own}`, 'lot', (base) => takenIds(trx, 'lots', base));
    const quantityG = of.reduce((sum, { massG }) => sum + massG, 0);
    await addLot(trx, {
      ...{ id: lotId, material: id, supplier: '', code: own, quantityG, leftG: quantityG, revision: 1 },
      ...{ receivedOn: house.today, openedOn: null, quarantine: heldWith(sources, nameOf) },
      bestBefore: earliest([bestBefore, ...sources.map(({ known }) => known?.bestBefore ?? null)]),
      price: priceOf(sources),
      ...(strengthPct === null ? {} : { strengthPct }),
    });
    for (const { known, massG, despite } of sources) {
      if (!known) continue;
      if (known.openedOn === null && known.ofBatch == null)
        await putLot(trx, { ...known, openedOn: house.today });
      const reason = `Made into ${own}${despite ? `: ${despite}` : ''}`;
      const moved = { lot: known.id, massG, at: house.now, batch: null, event: null, reason };
      await addMovement(trx, { ...moved, madeLot: lotId });
      await touchLot(trx, known.id);
    }
    return id;
  };
  return changing(house, action, key, 'made-lot');
}

/** What is made of a lot that is held is held with it. */
function heldWith(sources: readonly Taken[], nameOf: (material: string) => string): string | null {
  const held = sources.find(({ known }) => known !== null && known.quarantine !== null)?.known;
  return held ? heldFor(held.code, nameOf(held.material), held.quarantine!) : null;
}
