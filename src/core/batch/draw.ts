/** What an event draws from the stock, and what a lot holds while events are on their way. Pure. */
import { ALKALI_MATERIAL, type Lot } from '../making/cost';
import { LYE_STOCK_LINE } from '../making/run-sheet-types';
import { plainNumber } from '../quantities/amount';
import type { Batch, BatchEvent, Refusal } from './types';

/** A lot that an event draws from, and how much of it, grams. */
export interface Draw {
  lot: string;
  material: string;
  massG: number;
}

/** What of a lot a gram of a line is: of a lye stock without a lot of its own, its hydroxide. */
export function stockShare(
  { sheet }: Pick<Batch, 'sheet'>,
  material: string,
): { material: string; share: number } {
  if (material !== LYE_STOCK_LINE || sheet.lyeStock?.isMade) return { material, share: 1 };
  return { material: ALKALI_MATERIAL, share: (sheet.lyeStock?.concentrationPct ?? 0) / 100 };
}

/** What an event draws; null where it draws nothing. */
export function drawOf(batch: Pick<Batch, 'sheet' | 'lines'>, event: BatchEvent): Draw | null {
  if (event.type !== 'weighed' && event.type !== 'guessed' && event.type !== 'added') return null;
  if (event.lot == null) return null;
  const of =
    event.type === 'added' ? event.material : batch.lines.find(({ line }) => line === event.line)!.material;
  const { material, share } = stockShare(batch, of);
  return { lot: event.lot, material, massG: event.massG * share };
}

/**
 * Lots as they are now: as they were read, less what events that came after draw.
 *
 * @example
 * lotsNow(lots, batch, [{ type: 'weighed', lot: 'oil-1', massG: 40, … }]) // oil-1 holds 40 g less
 */
export function lotsNow(
  lots: Readonly<Record<string, readonly Lot[]>>,
  batch: Pick<Batch, 'sheet' | 'lines'>,
  since: readonly BatchEvent[],
): Record<string, Lot[]> {
  const drawn = new Map<string, number>();
  for (const event of since) {
    const draw = drawOf(batch, event);
    if (draw) drawn.set(draw.lot, (drawn.get(draw.lot) ?? 0) + draw.massG);
  }
  const now = (lot: Lot): Lot => ({ ...lot, leftG: lot.leftG - (drawn.get(lot.id) ?? 0) });
  return Object.fromEntries(Object.entries(lots).map(([material, all]) => [material, all.map(now)]));
}

const refusal = (path: string, code: string, message: string): Refusal => ({ path, code, message });
const grams = (massG: number) => `${plainNumber(massG, 1)} g`;

/**
 * Why a mass is not to be drawn from a lot on a day without a word; null where nothing speaks against it.
 *
 * @example
 * lotRefusal({ …lot, leftG: 20 }, 34, '2026-11-24') // { code: 'lot-short', message: 'Lot A holds 20 g, not 34 g. …' }
 */
export function lotRefusal(lot: Lot, massG: number, day: string): Refusal | null {
  const way = 'Take another, or say why it is taken all the same.';
  if (lot.quarantine !== null)
    return refusal('lot', 'lot-quarantined', `Lot ${lot.code} is in quarantine: ${lot.quarantine} ${way}`);
  if (lot.bestBefore !== null && lot.bestBefore < day)
    return refusal('lot', 'lot-past', `Lot ${lot.code} was best before ${lot.bestBefore}. ${way}`);
  // Kitchen scales and ledgers part by small amounts; what is left is still a plain number.
  if (lot.leftG < massG - 1e-9)
    return refusal(
      'lot',
      'lot-short',
      `Lot ${lot.code} holds ${grams(lot.leftG)}, not ${grams(massG)}. ${way}`,
    );
  return null;
}
