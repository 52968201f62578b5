/** Tracing both ways: from a lot to the bars it is in, from a bar back to the lots. */
import { groupBy } from '../../core/group';
import type { Trace } from '../../core/records/batch';
import type { House } from '../house';
import { fault } from '../http';
import { batchesDrawing, findBatch, findBatchByCode } from '../repositories/batches';
import { countsByBatch } from '../repositories/complaints';
import { findLot, lotsMadeOf, lotsOfBatch, partsOfLot } from '../repositories/lots';
import { standingsOf } from '../repositories/standings';
import { labelsOfBatches } from '../repositories/wraps';
import { batchesAt } from './batches';
import { snapshotOf } from './snapshot';

type TracedBatch = Trace['batches'][number];

/** What is told of batches, in the order of their ids. */
async function tracedBatches(house: House, ids: readonly string[]): Promise<TracedBatch[]> {
  const { db } = house;
  const summaries = new Map((await batchesAt(house, new Set(ids))).map((one) => [one.id, one]));
  const all = ids.map((id) => summaries.get(id)!);
  const standings = await standingsOf(db, ids);
  const complaints = await countsByBatch(db, ids);
  const products = [...new Set(all.map(({ product }) => product))];
  const codes = all.map(({ code }) => code);
  const labels = groupBy(await labelsOfBatches(db, products, codes), ({ code }) => code);
  return all.map(({ id, code, product, productName, state, isQuarantined, bars }): TracedBatch => {
    const { drawn, moved } = standings.get(id)!;
    return {
      ...{ id, code, product, productName, state, isQuarantined, drawn, bars },
      gone: moved,
      labels: (labels.get(code) ?? []).map(({ id: label, market, issuedOn, netMassG }) => ({
        id: label,
        market,
        issuedOn,
        netMassG,
      })),
      complaints: complaints(id),
    };
  });
}

async function tracedLots(
  { db, today }: House,
  batches: readonly TracedBatch[],
  ids: readonly string[],
): Promise<Trace['lots']> {
  const snapshot = await snapshotOf(db, today);
  const lots: Trace['lots'] = [];
  for (const id of ids) {
    const lot = await findLot(db, id);
    if (!lot) continue;
    const { code, material, supplier, leftG, quarantine, ofBatch = null } = lot;
    const madeOf = await partsOfLot(db, id);
    const drawn = batches.flatMap((batch) => batch.drawn.filter((one) => one.lot === id));
    const takenG = drawn.reduce((sum, { massG }) => sum + massG, 0);
    const name = snapshot.material(material)?.name ?? material;
    lots.push({ id, code, material, name, supplier, takenG, leftG, quarantine, ofBatch, madeOf });
  }
  return lots;
}

/** What is followed from a lot or a batch: forward to where it went, back to where it came from. */
class Trail {
  readonly lots = new Set<string>();
  readonly batches = new Set<string>();

  constructor(private readonly house: House) {}

  /** Every batch a lot went into, and on through what was made of those. */
  async forwardFromLot(lot: string): Promise<void> {
    if (this.lots.has(lot)) return;
    this.lots.add(lot);
    for (const batch of await batchesDrawing(this.house.db, lot)) await this.forwardFromBatch(batch);
    for (const made of await lotsMadeOf(this.house.db, lot)) await this.forwardFromLot(made);
  }

  async forwardFromBatch(id: string): Promise<void> {
    if (this.batches.has(id)) return;
    this.batches.add(id);
    for (const lot of await lotsOfBatch(this.house.db, id)) await this.forwardFromLot(lot);
  }

  /** Every lot that went into a batch, and back through those that were made here. */
  async backFromBatch(id: string): Promise<void> {
    this.batches.add(id);
    const { drawn } = (await standingsOf(this.house.db, [id])).get(id)!;
    for (const lot of new Set(drawn.map((one) => one.lot))) await this.backFromLot(lot);
  }

  /** A lot, and back through the batch or the lots that it was made of. */
  private async backFromLot(lot: string): Promise<void> {
    if (this.lots.has(lot)) return;
    this.lots.add(lot);
    const { ofBatch } = (await findLot(this.house.db, lot)) ?? {};
    if (ofBatch) await this.backFromBatch(ofBatch);
    for (const part of await partsOfLot(this.house.db, lot)) await this.backFromLot(part.lot);
  }

  async told(): Promise<Trace> {
    const batches = await tracedBatches(this.house, [...this.batches]);
    return { lots: await tracedLots(this.house, batches, [...this.lots]), batches };
  }
}

/**
 * From a lot: every batch that drew from it, its bars, where they went, its labels, and the same of what was made of
 * those batches. 404 where there is no such lot.
 */
export async function traceLot(house: House, id: string): Promise<Trace> {
  if (!(await findLot(house.db, id))) throw fault(404, 'unknown-lot', `There is no lot "${id}".`, 'id');
  const trail = new Trail(house);
  await trail.forwardFromLot(id);
  return trail.told();
}

/**
 * From a batch: every lot that went in, back through those made here, its bars and where they went, and the batches
 * that its own parts went into. 404 where there is none.
 */
export async function traceBatch(house: House, id: string): Promise<Trace> {
  if (!(await findBatch(house.db, id))) throw fault(404, 'unknown-batch', `There is no batch "${id}".`, 'id');
  const trail = new Trail(house);
  await trail.backFromBatch(id);
  for (const lot of await lotsOfBatch(house.db, id)) await trail.forwardFromLot(lot);
  return trail.told();
}

/** From a batch forward alone: its bars, and the batches that its parts went into. 404 where there is none. */
export async function traceForward(house: House, id: string): Promise<Trace> {
  if (!(await findBatch(house.db, id))) throw fault(404, 'unknown-batch', `There is no batch "${id}".`, 'id');
  const trail = new Trail(house);
  await trail.forwardFromBatch(id);
  return trail.told();
}

/** From a code as it stands on a bar: the batch's, or that with the bar's number behind it. */
export async function traceCode(house: House, code: string): Promise<Trace> {
  const wanted = code.trim();
  for (let end = wanted.length; end > 0; end = wanted.lastIndexOf('/', end - 1)) {
    const found = await findBatchByCode(house.db, wanted.slice(0, end));
    if (found) return traceBatch(house, found.id);
  }
  throw fault(404, 'unknown-code', `No batch has the code "${wanted.slice(0, 80)}".`, 'code');
}
