/** How a bar was poured the last time, for the next plan to begin with. */
import type { Batch } from '../../../core/batch/types';
import type { LastPour } from '../../../core/records/batch';
import type { House } from '../../house';
import { listBatches, requireBatch } from '../../store/batches';

function sizeOf({ sheet }: Batch): Pick<LastPour, 'kind' | 'size' | 'moulds'> {
  const moulds = sheet.moulds.map(({ id, count }) => ({ id, count }));
  if (moulds.length > 0)
    return { kind: 'mould', size: moulds.reduce((sum, { count }) => sum + count, 0), moulds };
  return sheet.bars === null
    ? { kind: 'fats', size: Math.round(sheet.fatsG), moulds }
    : { kind: 'bars', size: sheet.bars, moulds };
}

/**
 * The size, moulds, lye stock, hands, temperatures and way of resting of a bar's newest batch that was not given up; null
 * where it has none.
 */
export async function lastPour(house: House, product: string): Promise<LastPour | null> {
  const [newest] = (await listBatches(house, { state: null, product })).filter(
    ({ state }) => state !== 'stopped',
  );
  if (!newest) return null;
  const { batch } = await requireBatch(house, newest.id);
  const lastOf = new Map(batch.temperatures.map(({ of, c }) => [of, c]));
  return {
    code: newest.code,
    ...sizeOf(batch),
    concentrationPct: batch.sheet.lyeStock?.concentrationPct ?? null,
    restDry: (batch.sheet.lyeStock?.dryG ?? 0) > 0,
    isMade: batch.sheet.lyeStock?.isMade ?? false,
    bucket: batch.sheet.bucket?.material ?? null,
    by: batch.startedBy,
    temperatures: [...lastOf].map(([of, c]) => ({ of, c })),
    rested: batch.rested,
  };
}
