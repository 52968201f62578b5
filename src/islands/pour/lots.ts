/** The lots of a batch's materials as they are now: read again and again, less what this device has drawn since. */
import { useEffect, useState } from 'react';
import { lotsNow } from '../../core/batch/draw';
import type { Lot } from '../../core/making/cost';
import type { BatchLots, BenchData } from '../../core/records/batch';
import { address, send } from '../../ui/api';
import type { Writing } from '../../ui/writing';

/** Others draw from the same bottles: looked at this often. */
const LOOK_MS = 20_000;

/** Lots by material. */
export function useLots({ detail, lots }: BenchData, { batch, queue }: Writing): Record<string, Lot[]> {
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
  return lotsNow(read.lots, batch, since);
}
