/** What a bar would have been said to cost before its batch was made, beside what its batch cost. Pure. */
import { batchCost } from '../batch/cost';
import { stockShare } from '../batch/draw';
import type { Batch } from '../batch/types';
import { groupBy } from '../group';
import { pricePerGram, type Lot } from '../making/cost';
import { PRICE_DOUBT } from '../making/price';
import type { Foretold } from './held';

/** The batch as it was planned: of each line what was wanted, of no lot that is known yet. */
const asPlanned = (batch: Batch, bars: number): Batch => ({
  ...batch,
  bars: { ...batch.bars, good: bars },
  lines: batch.lines.flatMap((line) =>
    line.plannedG === null
      ? []
      : [
          {
            ...line,
            massG: line.plannedG,
            weighings: [{ ...line.weighings[0]!, lot: null, massG: line.plannedG }],
          },
        ],
  ),
});

/**
 * The cost of a good bar in materials: by the plan, at the prices of the lots that had come by its day, against what was
 * weighed at the prices of the lots it was weighed from. Null where of anything but water no price
 * was known then, where no number of bars was planned, or where it is not cut.
 *
 * @example
 * foretoldCost({ product: 'night-mail', of: 'NM-260930', on: '2026-09-30' }, batch, lots); // { likely: 0.84, came: 0.88, … }
 */
export function foretoldCost(
  told: Pick<Foretold, 'product' | 'of' | 'on'>,
  batch: Batch,
  lots: readonly Lot[],
): Foretold | null {
  const { bars } = batch.sheet;
  if (bars === null || bars <= 0 || batch.bars.good <= 0) return null;
  // Which lot it will be weighed from is not known to the plan: the newest price of each stands for it.
  const then = groupBy(
    lots.filter(({ receivedOn }) => receivedOn <= told.on).map((lot) => ({ ...lot, leftG: 0 })),
    ({ material }) => material,
  );
  const price = (material: string) => pricePerGram(then.get(material) ?? []);
  const kinds = new Map(batch.materials.map(({ id, kind }) => [id, kind]));
  // Water costs nothing that is on file; of anything else a price that is missing would make a part stand for the whole.
  const isPriced = batch.lines.every(({ material, plannedG, massG }) => {
    const isUsed = (plannedG ?? 0) > 0 || massG > 0;
    return (
      !isUsed || kinds.get(material) === 'liquid' || price(stockShare(batch, material).material) !== null
    );
  });
  if (!isPriced) return null;
  const planned = batchCost(asPlanned(batch, bars), new Map(), price);
  const really = batchCost(batch, new Map(lots.map((lot) => [lot.id, lot])), price);
  if (planned.perBar === null || really.perBar === null || planned.perBar <= 0) return null;
  const likely = planned.perBar;
  return {
    ...{ kind: 'cost', ...told, likely, came: really.perBar },
    ...{ low: likely * (1 - PRICE_DOUBT), high: likely * (1 + PRICE_DOUBT) },
  };
}
