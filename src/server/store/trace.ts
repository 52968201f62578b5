/** Tracing both ways: from a lot to the bars it is in, from a bar back to the lots. */
import type { Trace } from '../../core/records/batch';
import type { House } from '../house';
import { fault } from '../http';
import { batchesDrawing, findBatch, findBatchByCode } from '../repositories/batches';
import { countComplaints } from '../repositories/complaints';
import { findLot, lotsMadeOf, lotsOfBatch, partsOfLot } from '../repositories/lots';
import { standingsOf } from '../repositories/standings';
import { labelsOfBatch } from '../repositories/wraps';
import { batchesAt } from './batches';
import { snapshotOf } from './snapshot';

type TracedBatch = Trace['batches'][number];

async function tracedBatch(house: House, id: string): Promise<TracedBatch> {
  const { db } = house;
  const [summary] = await batchesAt(house, new Set([id]));
  const { code, product, productName, state, isQuarantined, bars } = summary!;
  const { drawn, moved } = (await standingsOf(db, [id])).get(id)!;
  const labels = await labelsOfBatch(db, product, code);
  return {
    id,
    code,
    product,
    productName,
    state,
    isQuarantined,
    drawn,
    bars,
    gone: moved,
    labels: labels.map(({ id: label, market, issuedOn, netMassG }) => ({
      id: label,
      market,
      issuedOn,
      netMassG,
    })),
    complaints: await countComplaints(db, { batch: id }),
  };
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
  readonly batches = new Map<string, TracedBatch>();

  constructor(private readonly house: House) {}

  private async batch(id: string): Promise<TracedBatch | null> {
    if (this.batches.has(id)) return null;
    const traced = await tracedBatch(this.house, id);
    this.batches.set(id, traced);
    return traced;
  }

  /** Every batch a lot went into, and on through what was made of those. */
  async forwardFromLot(lot: string): Promise<void> {
    if (this.lots.has(lot)) return;
    this.lots.add(lot);
    for (const batch of await batchesDrawing(this.house.db, lot)) await this.forwardFromBatch(batch);
    for (const made of await lotsMadeOf(this.house.db, lot)) await this.forwardFromLot(made);
  }

  async forwardFromBatch(id: string): Promise<void> {
    if (!(await this.batch(id))) return;
    for (const lot of await lotsOfBatch(this.house.db, id)) await this.forwardFromLot(lot);
  }

  /** Every lot that went into a batch, and back through those that were made here. */
  async backFromBatch(id: string): Promise<void> {
    const traced = await this.batch(id);
    for (const lot of new Set((traced ?? this.batches.get(id)!).drawn.map((one) => one.lot)))
      await this.backFromLot(lot);
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
    const batches = [...this.batches.values()];
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
