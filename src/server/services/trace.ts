/** Tracing both ways: from a lot to the bars it is in, from a bar back to the lots. */
import { foldBatch } from '../../core/batch/fold';
import { LYE_STOCK_LINE } from '../../core/making/run-sheet-types';
import type { Trace } from '../../core/records/batch';
import type { House } from '../house';
import { fault } from '../http';
import { batchesDrawing, eventsOf, findBatch, findBatchByCode } from '../repositories/batches';
import { findLot } from '../repositories/lots';
import { issuedLabels } from '../repositories/wraps';
import { snapshotOf } from '../store/snapshot';

type TracedBatch = Trace['batches'][number];

async function tracedBatch({ db, now }: House, id: string): Promise<TracedBatch> {
  const summary = (await findBatch(db, id))!;
  const events = (await eventsOf(db, id)).map(({ event }) => event);
  const batch = foldBatch(events, now)!;
  const stock = (batch.sheet.lyeStock?.concentrationPct ?? 0) / 100;
  const drawn = batch.lines.flatMap(({ line, portion, weighings }) =>
    weighings.flatMap((one) =>
      one.lot === null
        ? []
        : [
            {
              lot: one.lot,
              line,
              portion: portion ?? one.portion,
              massG: line === LYE_STOCK_LINE ? one.massG * stock : one.massG,
            },
          ],
    ),
  );
  const labels = (await issuedLabels(db, batch.product)).filter(({ batchCode }) => batchCode === batch.code);
  return {
    id,
    code: batch.code,
    product: batch.product,
    productName: summary.productName,
    state: batch.state,
    isQuarantined: batch.isQuarantined,
    drawn,
    bars: batch.bars,
    gone: batch.moved,
    labels: labels.map(({ id: label, market, issuedOn, netMassG }) => ({
      id: label,
      market,
      issuedOn,
      netMassG,
    })),
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
    const { code, material, supplier, leftG, quarantine } = lot;
    const drawn = batches.flatMap((batch) => batch.drawn.filter((one) => one.lot === id));
    const takenG = drawn.reduce((sum, { massG }) => sum + massG, 0);
    const name = snapshot.material(material)?.name ?? material;
    lots.push({ id, code, material, name, supplier, takenG, leftG, quarantine });
  }
  return lots;
}

/** From a lot: every batch that drew from it, its bars, where they went, its labels. 404 where there is no such lot. */
export async function traceLot(house: House, id: string): Promise<Trace> {
  if (!(await findLot(house.db, id))) throw fault(404, 'unknown-lot', `There is no lot "${id}".`, 'id');
  const ids = await batchesDrawing(house.db, id);
  const batches = [];
  for (const batch of ids) batches.push(await tracedBatch(house, batch));
  return { lots: await tracedLots(house, batches, [id]), batches };
}

/** From a batch: every lot that went in, its bars and where they went. 404 where there is none. */
export async function traceBatch(house: House, id: string): Promise<Trace> {
  if (!(await findBatch(house.db, id))) throw fault(404, 'unknown-batch', `There is no batch "${id}".`, 'id');
  const batch = await tracedBatch(house, id);
  const lots = [...new Set(batch.drawn.map(({ lot }) => lot))];
  return { lots: await tracedLots(house, [batch], lots), batches: [batch] };
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
