/** Who looks at a batch just now is told of every event as soon as it is on disk. */
import { EventEmitter } from 'node:events';

/** A batch's place after a change. */
export interface BatchNews {
  batch: string;
  seq: number;
}

const MOST_LISTENERS = 500;
const feed = new EventEmitter().setMaxListeners(MOST_LISTENERS);

/** Tells everyone who looks. */
export function tellBatch(news: BatchNews): void {
  feed.emit('batch', news);
}

/** Listens for changes of one batch; answers how to stop. */
export function onBatch(batch: string, listen: (news: BatchNews) => void): () => void {
  const hear = (news: BatchNews) => {
    if (news.batch === batch) listen(news);
  };
  feed.on('batch', hear);
  return () => feed.off('batch', hear);
}
