/** The lots of a batch's materials as they are now: read again and again, less what this device has drawn since. */
import { useEffect, useState } from 'react';
import { lotsNow } from '../../core/batch/draw';
import type { Lot } from '../../core/making/cost';
import type { BatchLots, BenchData } from '../../core/records/batch';
import { address, send } from '../../ui/api';
import type { Writing } from '../../ui/writing';

/** Others draw from the same bottles: looked at this often. */
const LOOK_MS = 20_000;

export interface BenchLots {
  /** By material. */
  lots: Record<string, Lot[]>;
  /** Makes a lot of a bottle that is not on file; answers its id, or why not. */
  find: (material: string, quantityG: number) => Promise<{ id: string } | { why: string }>;
}

export function useLots({ detail, lots }: BenchData, { batch, queue }: Writing): BenchLots {
  const [read, setRead] = useState<BatchLots>({ seq: detail.seq, lots });
  const { length } = queue.known;
  useEffect(() => {
    let isOver = false;
    const look = async () => {
      const answer = await send<BatchLots>('GET', address('batches', detail.id, 'lots'));
      if (answer.ok && !isOver) setRead(answer.body);
    };
    if (length > detail.seq) void look();
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => {
      isOver = true;
      clearInterval(timer);
    };
  }, [detail.id, detail.seq, length]);
  const since = [...queue.known.slice(read.seq), ...queue.waiting];
  const find = async (material: string, quantityG: number) => {
    const body = { material, quantityG, code: null };
    const answer = await send<BatchLots & { code: string }>(
      'POST',
      address('batches', detail.id, 'lots'),
      body,
    );
    if (!answer.ok) return { why: answer.faults[0]!.message };
    setRead(answer.body);
    const made = answer.body.lots[material]?.find(({ code }) => code === answer.body.code);
    return made
      ? { id: made.id }
      : { why: 'It is on file, but not among the lots of this batch. Look again.' };
  };
  return { lots: lotsNow(read.lots, batch, since), find };
}
