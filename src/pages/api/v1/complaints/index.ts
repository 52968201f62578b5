import type { StatedComplaint } from '../../../../core/records/complaints';
import { ComplaintDoor } from '../../../../server/doors/complaints';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { listComplaints, writeComplaint } from '../../../../server/services/watch/complaints';

export const GET = endpoint(async ({ url }) => {
  const wanted = Object.fromEntries(
    ['product', 'batch'].flatMap((key) => {
      const value = url.searchParams.get(key);
      return value === null ? [] : [[key, value]];
    }),
  );
  return answerJson({ complaints: await listComplaints(await openHouse(), wanted) });
});

export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const stated = await readShaped<StatedComplaint>(ComplaintDoor, request);
  return answerJson(await writeComplaint(await openHouse(), stated, key), 201);
});

export const ALL = onlyMethods('GET', 'POST');
