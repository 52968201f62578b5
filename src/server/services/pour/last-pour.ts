/** How a bar was poured the last time, for the next plan to begin with. */
import type { Batch } from '../../../core/batch/types';
import type { LastPour } from '../../../core/records/batch';
import type { House } from '../../house';
import { listBatches, requireBatch } from '../../store/batches';

function sizeOf({ sheet }: Batch): Pick<LastPour, 'kind' | 'size' | 'mould'> {
  const [mould, ...others] = sheet.moulds;
  if (mould && others.length === 0) return { kind: 'mould', size: mould.count, mould: mould.id };
  return sheet.bars === null
    ? { kind: 'fats', size: Math.round(sheet.fatsG), mould: null }
    : { kind: 'bars', size: sheet.bars, mould: null };
}

/** The size, lye stock and hands of a bar's newest batch that was not given up; null where it has none. */
export async function lastPour(house: House, product: string): Promise<LastPour | null> {
  const [newest] = (await listBatches(house, { state: null, product })).filter(
    ({ state }) => state !== 'stopped',
  );
  if (!newest) return null;
  const { batch } = await requireBatch(house, newest.id);
  return {
    code: newest.code,
    ...sizeOf(batch),
    concentrationPct: batch.sheet.lyeStock?.concentrationPct ?? null,
    by: batch.startedBy,
  };
}
