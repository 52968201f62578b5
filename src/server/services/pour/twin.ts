/** The batch that one at the bench should match: the one it names, else the bar's last. */
import { storyOf, twinCode, type PourStory } from '../../../core/batch/twin';
import type { House } from '../../house';
import { photosOf, type BatchPhoto } from '../../repositories/photos';
import { listBatches, requireBatch } from '../../store/batches';

export interface TwinOfBatch {
  /** Null where the bar was never poured before. */
  twin: (PourStory & { id: string; photos: BatchPhoto[]; isNamed: boolean }) | null;
  /** Codes of batches it might match, newest first. */
  others: string[];
}

const MOST_OTHERS = 20;

/** 404 where there is no such batch. */
export async function twinOf(house: House, id: string): Promise<TwinOfBatch> {
  const { batch } = await requireBatch(house, id);
  const all = (await listBatches(house, { state: null, product: batch.product })).filter(
    (one) => one.id !== id && one.pouredAt !== null,
  );
  const code = twinCode(batch);
  const named = all.find((one) => one.code === code);
  const chosen = named ?? all[0];
  const others = all.map((one) => one.code).slice(0, MOST_OTHERS);
  if (!chosen) return { twin: null, others };
  const then = await requireBatch(house, chosen.id);
  const photos = await photosOf(house.db, chosen.id);
  return { twin: { ...storyOf(then.batch), id: chosen.id, photos, isNamed: named !== undefined }, others };
}
