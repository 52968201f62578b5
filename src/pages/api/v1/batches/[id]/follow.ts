import { onBatch } from '../../../../../server/events/feed';
import { openHouse } from '../../../../../server/house';
import { endpoint, onlyMethods } from '../../../../../server/http';
import { eventStream } from '../../../../../server/stream';
import { requireBatch } from '../../../../../server/store/batches';

export const GET = endpoint(async ({ params, request }) => {
  const { id, seq } = await requireBatch(await openHouse(), params.id ?? '');
  return eventStream(request, (send) => {
    send({ seq });
    return onBatch(id, (news) => send({ seq: news.seq }));
  });
});

export const ALL = onlyMethods('GET');
