/** What a batch really cost in materials: every weighing at the price of the lot it came from. */
import type { Lot } from '../making/cost';
import { stockShare } from './draw';
import { lineName } from './record';
import type { Batch } from './types';

export interface BatchCost {
  lines: { name: string; massG: number; cost: number | null }[];
  /** The sum of what has a price. */
  total: number;
  /** For a good bar; null before it is cut. */
  perBar: number | null;
  /** Names of what has no price on file. */
  unpriced: string[];
}

const ofLot = ({ price, quantityG }: Lot) => (price === null || quantityG <= 0 ? null : price / quantityG);

/**
 * The cost of what was weighed. `lots` are those on file by id; `price` gives a gram's price where a weighing names no
 * lot, or one without a price.
 *
 * @example
 * batchCost(batch, lots, (id) => pricePerGram(lotsOf(id))); // what went in, a line each, and its sum
 */
export function batchCost(
  batch: Batch,
  lots: ReadonlyMap<string, Lot>,
  price: (material: string) => number | null,
): BatchCost {
  const lines = batch.lines
    .filter(({ massG }) => massG > 0)
    .map((line) => {
      const { material, share } = stockShare(batch, line.material);
      const costs = line.weighings.map(({ lot, massG }) => {
        const known = lot === null ? undefined : lots.get(lot);
        const perGram = (known && ofLot(known)) ?? price(material);
        return perGram === null ? null : perGram * massG * share;
      });
      const cost = costs.includes(null) ? null : costs.reduce<number>((sum, one) => sum + one!, 0);
      return { name: lineName(batch, line), massG: line.massG, cost };
    });
  const total = lines.reduce((sum, { cost }) => sum + (cost ?? 0), 0);
  const { good } = batch.bars;
  return {
    lines,
    total,
    perBar: good > 0 ? total / good : null,
    unpriced: lines.filter(({ cost }) => cost === null).map(({ name }) => name),
  };
}
